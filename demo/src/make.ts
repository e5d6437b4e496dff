import { mkdirSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { makeExchange } from './make-exchange.js';
import { makeLinks } from './make-links.js';
import { makeModel } from './make-model.js';
import { makeResults } from './make-results.js';
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
