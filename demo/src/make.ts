import { execFileSync } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { makeDecisions } from './make-decisions.js';
import { makeDriveModel } from './make-drive-model.js';
import { makeExchange } from './make-exchange.js';
import { makeLinks } from './make-links.js';
import { makeModel } from './make-model.js';
import { makeParishNeeds } from './make-parish-needs.js';
import { makeProcess } from './make-process.js';
import { makeResults } from './make-results.js';
import { makeRules } from './make-rules.js';
import { makeSignals } from './make-signals.js';
import { makeSoftware } from './make-software.js';
import { makeSpecification } from './make-specification.js';
import { makeTests } from './make-tests.js';
import { needs } from './needs.js';
import { reviseChapters } from './revise-specification.js';

/** Writes the files of the demo project anew: `npm run demo:files`. */
const folder = fileURLToPath(new URL('../files/', import.meta.url));
mkdirSync(`${folder}next`, { recursive: true });
const csv = (cells: string[]) => cells.map((cell) => `"${cell.replace(/"/g, '""')}"`).join(',');
writeFileSync(`${folder}1 Larkbeck needs.csv`, `\uFEFF${[['ID', 'Title', 'Text', 'Priority'], ...needs].map(csv).join('\r\n')}\r\n`);
writeFileSync(`${folder}2 Larkbeck system requirements.docx`, await makeSpecification());
writeFileSync(`${folder}3 Larkbeck model.xmi`, makeModel());
writeFileSync(`${folder}4 Larkbeck test cases.xlsx`, await makeTests());
writeFileSync(`${folder}5 Rig run 7.xml`, makeResults('rig'));
writeFileSync(`${folder}6 Site run 3.xml`, makeResults('site'));
writeFileSync(`${folder}links.csv`, makeLinks());
writeFileSync(`${folder}next/2 Larkbeck system requirements, issue 4.docx`, await makeSpecification(reviseChapters(), 'issue 4'));
writeFileSync(`${folder}7 Gate drive of the supplier.reqif`, makeExchange(1));
writeFileSync(`${folder}next/7 Gate drive of the supplier, issue 2.reqif`, makeExchange(2));
writeFileSync(`${folder}8 Needs of the parish.docx`, await makeParishNeeds(1));
writeFileSync(`${folder}next/8 Needs of the parish, issue 2.docx`, await makeParishNeeds(2));
writeFileSync(`${folder}9 Control software requirements.xlsx`, await makeSoftware(1));
writeFileSync(`${folder}next/9 Control software requirements, issue 2.xlsx`, await makeSoftware(2));
for (const issue of [1, 2] as const) {
  const named = (name: string, ending: string) => (issue === 1 ? `${folder}${name}.${ending}` : `${folder}next/${name}, issue 2.${ending}`);
  writeFileSync(named('10 Drive of the supplier', 'xmi'), makeDriveModel(issue));
  writeFileSync(named('11 Lock passage', 'bpmn'), makeProcess(issue));
  writeFileSync(named('12 Warning stages', 'dmn'), makeDecisions(issue));
  writeFileSync(named('13 Gate drive signals', 'ssd'), makeSignals(issue));
}
// The drive as another tool has it, which renamed one thing, moved a shape and said what the motor depends on.
const tool = fileURLToPath(new URL('../../apps/standins/src/main.ts', import.meta.url));
const changes = ['--rename', 'Spring brake=Holding brake', '--move', 'Motor=40,30', '--connect', 'Motor>Spindle unit=Trace'];
const drive = ['rowan', `${folder}10 Drive of the supplier.xmi`, '--save', `${folder}next/10 Drive of the supplier, from another tool.xmi`];
execFileSync(process.execPath, [...process.execArgv, tool, ...drive, ...changes]);
writeFileSync(`${folder}next/Rules of operation, changes tracked.docx`, await makeRules());
