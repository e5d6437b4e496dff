import { benchClients } from './clients.js';
import { benchCore } from './core.js';
import { benchDemoAtRest } from './demo-at-rest.js';
import { benchDrawn } from './drawn.js';
import { benchFormats } from './formats.js';
import { benchGrowth } from './growth.js';
import { benchHostile } from './hostile.js';
import { format, type Row } from './measure.js';
import { benchModels } from './models.js';
import { benchImports } from './imports.js';
import { benchMillion, benchPage } from './page.js';
import { benchPast } from './past.js';
import { benchPower } from './power.js';
import { benchServer } from './server.js';
import { benchStructure } from './structure.js';
import { benchSuggestions } from './suggestions.js';
import { keepResults, type Part } from './results.js';

const wanted = new Set(process.argv.slice(2));
const isWanted = (part: string) => wanted.size === 0 || wanted.has(part);
const add = (part: Part, rows: Row[]) => {
  keepResults(part, rows);
  console.log(`\n${part}\n${format(rows)}`);
};

if (isWanted('core')) add('Core', await benchCore());
if (isWanted('models')) add('Models', await benchModels());
if (isWanted('drawn')) add('Drawings', await benchDrawn());
if (isWanted('suggestions')) add('Suggestions', await benchSuggestions());
if (isWanted('structure')) add('Structure', await benchStructure());
if (isWanted('server') || isWanted('page')) {
  await benchServer(async (folder, server) => {
    add('Server', server);
    if (isWanted('page')) add('Browser', await benchPage(folder));
  });
}
if (isWanted('million')) add('A million links', await benchMillion());
if (isWanted('imports')) add('Imports', await benchImports());
if (isWanted('clients')) add('Many at once', await benchClients());
if (isWanted('growth')) add('Growth', await benchGrowth());
if (isWanted('past')) add('The past', await benchPast());
if (isWanted('power')) add('Power', benchPower());
if (isWanted('rest')) add('The demo at rest', await benchDemoAtRest());
// Last: the reader of PDFs brings its own JSON and streams into the process, which make the server several times slower. The server itself
// reads files in workers, whose globals are their own.
if (isWanted('formats')) add('Formats', await benchFormats());
if (isWanted('hostile')) add('Hostile files', benchHostile());
