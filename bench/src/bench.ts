import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { benchClients } from './clients.js';
import { benchCore } from './core.js';
import { benchDemoAtRest } from './demo-at-rest.js';
import { benchFormats } from './formats.js';
import { benchHostile } from './hostile.js';
import { format, type Row } from './measure.js';
import { benchPage } from './page.js';
import { benchPower } from './power.js';
import { benchServer } from './server.js';

const wanted = new Set(process.argv.slice(2));
const isWanted = (part: string) => wanted.size === 0 || wanted.has(part);
const parts: [string, Row[]][] = [];
const add = (title: string, rows: Row[]) => {
  parts.push([title, rows]);
  console.log(`\n${title}\n${format(rows)}`);
};

if (isWanted('core')) add('Core', await benchCore());
if (isWanted('server') || isWanted('page')) {
  let pages: Row[] = [];
  const rows = await benchServer(
    isWanted('page')
      ? async (folder) => {
          pages = await benchPage(folder);
        }
      : undefined,
  );
  add('Server', rows);
  if (pages.length) add('Browser', pages);
}
if (isWanted('clients')) add('Many at once', await benchClients());
if (isWanted('power')) add('Power', benchPower());
if (isWanted('rest')) add('The demo at rest', await benchDemoAtRest());
// Last: the reader of PDFs brings its own JSON and streams into the process, which make the server several times slower. The server itself
// reads files in workers, whose globals are their own.
if (isWanted('formats')) add('Formats', await benchFormats());
if (isWanted('hostile')) add('Hostile files', benchHostile());
if (wanted.size === 0) {
  const text = parts.map(([title, rows]) => `## ${title}\n\n${format(rows)}`).join('\n\n');
  writeFileSync(
    fileURLToPath(new URL('../results.md', import.meta.url)),
    `# Measured by \`npm run bench\`\n\nMedians on a machine with 2 cores, Node ${process.version}, ${new Date().toISOString().slice(0, 10)}. Such machines are noisy: trust the ratios, which are measured in one run.\n\n${text}\n`,
  );
}
