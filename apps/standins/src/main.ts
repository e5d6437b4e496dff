import { readFileSync, writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { OpenModel, tools } from './tool.js';

const help = `Opens a model in a small tool of its own, changes it, and saves it in the tool's own way.

  npm run -s model -w @coomb/standins -- <tool> <file.xmi> --save <file.xmi> [--rename "Old=New"] [--move "Name=dx,dy"] [--connect "From>To=Satisfy"]

Tools: ${tools.map(({ name }) => name.toLowerCase()).join(', ')}`;

const { positionals, values } = parseArgs({
  allowPositionals: true,
  options: {
    save: { type: 'string' },
    rename: { type: 'string', multiple: true },
    move: { type: 'string', multiple: true },
    connect: { type: 'string', multiple: true },
  },
});
const [toolName, file] = positionals;
const tool = tools.find(({ name }) => name.toLowerCase() === toolName);
if (!tool || !file || !values.save) {
  process.stderr.write(`${help}\n`);
  process.exitCode = 2;
} else {
  const model = new OpenModel(tool, readFileSync(file, 'utf8'));
  for (const wish of values.rename ?? []) {
    const [name, to] = wish.split('=') as [string, string];
    model.rename(name, to);
  }
  for (const wish of values.move ?? []) {
    const [name, by] = wish.split('=') as [string, string];
    const [x, y] = by.split(',').map(Number) as [number, number];
    model.move(name, { x, y });
  }
  for (const wish of values.connect ?? []) {
    const [ends, stereotype] = wish.split('=') as [string, string];
    const [from, to] = ends.split('>') as [string, string];
    model.connect(from, to, stereotype);
  }
  writeFileSync(values.save, model.save());
  process.stdout.write(`${tool.name} saved ${values.save}\n`);
}
