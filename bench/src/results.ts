import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { format, type Row } from './measure.js';

const file = fileURLToPath(new URL('../results.md', import.meta.url));
const HEAD = `# Measured by \`npm run bench\`

Medians on a machine with 2 cores, Node ${process.version}. Such machines are noisy: trust the ratios, which are measured in one run.`;

/** The parts in the order in which they stand in the file. */
const order = [
  'Core',
  'Models',
  'Drawings',
  'Suggestions',
  'Structure',
  'Server',
  'Browser',
  'A million links',
  'Imports',
  'Many at once',
  'Growth',
  'The past',
  'Power',
  'The demo at rest',
  'Formats',
  'Hostile files',
] as const;
export type Part = (typeof order)[number];

/** Writes what a part measured into the file of results, in the place of what stood there; what the other parts measured stays. */
export function keepResults(part: Part, rows: readonly Row[]): void {
  const before = existsSync(file) ? readFileSync(file, 'utf8') : '';
  const sections = new Map(
    before
      .split(/^## /m)
      .slice(1)
      .map((section) => [section.split('\n', 1)[0]!, section.slice(section.indexOf('\n')).trim()]),
  );
  sections.set(part, `${new Date().toISOString().slice(0, 10)}\n\n${format([...rows])}`);
  writeFileSync(file, `${HEAD}\n\n${order.flatMap((name) => (sections.has(name) ? [`## ${name}\n\n${sections.get(name)}\n`] : [])).join('\n')}`);
}
