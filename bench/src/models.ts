import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import {
  applyModelRecipe,
  buildScene,
  Composition,
  defaultScheme,
  type DrawnRoute,
  type DrawnShape,
  layTree,
  proposeModelRecipe,
  writeDrawing,
} from '@coomb/core';
import { below, seeded } from '@coomb/core/testing';
import { readXmi, rewriteModel } from '@coomb/formats';
import { SaxesParser } from 'saxes';
import { type Row, time, timeEach } from './measure.js';

const ELEMENTS = 100_000;

/** A model of so many elements: packages of ten blocks with six parts and a comment each, and allocations between them. */
function makeModel(elements: number, asElements: boolean): Buffer {
  const packages = Math.floor(elements / 97);
  const value = (name: string, text: string) => (asElements ? ['', `<${name}>${text}</${name}>`] : [` ${name}="${text}"`, '']);
  const end = (name: string, id: string) => (asElements ? ['', `<${name} xmi:idref="${id}"/>`] : [` ${name}="${id}"`, '']);
  const element = (tag: string, type: string, id: string, parts: string[][], inside = '') => {
    const content = parts.map(([, one]) => one).join('') + inside;
    const open = `<${tag} xmi:type="uml:${type}" xmi:id="${id}"${parts.map(([one]) => one).join('')}`;
    return content ? `${open}>${content}</${tag}>\n` : `${open}/>\n`;
  };
  const out: string[] = [];
  const marks: string[] = [];
  for (let at = 0; at < packages; at++) {
    const blocks = Array.from({ length: 10 }, (_, block) => {
      const id = `c${at}_${block}`;
      const comment = element('ownedComment', 'Comment', `${id}k`, [value('body', 'Does something of use in the weir.'), end('annotatedElement', id)]);
      const parts = Array.from({ length: 6 }, (_, part) =>
        element('ownedAttribute', 'Property', `${id}p${part}`, [
          value('name', `part${part}`),
          value('aggregation', 'composite'),
          end('type', `c${(at * 7 + part) % packages}_${part}`),
        ]),
      );
      marks.push(`<sysml:Block xmi:id="m${id}"${end('base_Class', id)[0]}${asElements ? `>${end('base_Class', id)[1]}</sysml:Block>` : '/>'}\n`);
      return element('packagedElement', 'Class', id, [value('name', `Component ${at} ${block}`)], comment + parts.join(''));
    });
    const relations = Array.from({ length: 16 }, (_, index) =>
      element('packagedElement', 'Abstraction', `a${at}_${index}`, [
        end('client', `c${at}_${index % 10}`),
        end('supplier', `c${(at + 1) % packages}_${(index + 3) % 10}`),
      ]),
    );
    out.push(element('packagedElement', 'Package', `p${at}`, [value('name', `Package ${at}`)], blocks.join('') + relations.join('')));
  }
  return Buffer.from(
    `<?xml version="1.0" encoding="UTF-8"?>\n<xmi:XMI xmlns:xmi="http://www.omg.org/spec/XMI/20131001" xmlns:uml="http://www.omg.org/spec/UML/20161101" xmlns:sysml="http://www.omg.org/spec/SysML/20181001/SysML">\n<uml:Model xmi:id="m" name="Large">${out.join('')}</uml:Model>\n${marks.join('')}</xmi:XMI>\n`,
  );
}

function parseBare(bytes: Buffer): void {
  const parser = new SaxesParser({ xmlns: false, position: true });
  const decoder = new TextDecoder();
  for (let at = 0; at < bytes.length; at += 1 << 16) parser.write(decoder.decode(bytes.subarray(at, at + (1 << 16)), { stream: true }));
  parser.close();
}

function measureMemory(bytes: Buffer): string {
  const folder = mkdtempSync(join(tmpdir(), 'coomb-models-'));
  const path = join(folder, 'large.xmi');
  writeFileSync(path, bytes);
  const script = fileURLToPath(new URL('./read-once.mjs', import.meta.url));
  const megabytes = execFileSync(process.execPath, ['--expose-gc', script, path], { encoding: 'utf8' }).trim();
  rmSync(folder, { recursive: true });
  return megabytes;
}

/** Models: reading and writing large ones, drawings, trees, compositions. */
export async function benchModels(): Promise<Row[]> {
  const rows: Row[] = [];
  for (const asElements of [false, true]) {
    const bytes = makeModel(ELEMENTS, asElements);
    const [median, parse] = (await timeEach(5, [() => readXmi(bytes), () => parseBare(bytes)])) as [number, number];
    const { model } = await readXmi(bytes);
    rows.push({
      what: `read a model, values as ${asElements ? 'elements' : 'attributes'}: ${measureMemory(bytes)} MB`,
      size: `${(model.elements.length + model.relations.length).toLocaleString('en')} elements and relations, ${(bytes.length / 1024 / 1024).toFixed(1)} MB`,
      ...{ runs: 5, median, baseline: { what: 'parse alone', median: parse }, goal: '≥ 0.5 × of the bare parser, ≤ 300 MB' },
    });
    if (asElements) continue;
    const recipe = proposeModelRecipe(defaultScheme, model);
    rows.push({
      what: 'what a recipe makes of it',
      size: `${model.elements.length.toLocaleString('en')} elements`,
      runs: 5,
      median: await time(5, () => applyModelRecipe(defaultScheme, recipe, model)),
    });
    const none = {
      names: new Map([['c1_1', 'Renamed']]),
      texts: new Map(),
      references: new Map(),
      values: new Map(),
      types: new Map(),
      removed: new Set<string>(),
      added: [],
      removedRelations: [],
      addedRelations: [],
      boxes: new Map(),
      points: new Map(),
    };
    rows.push({
      what: 'write it again with one name changed',
      size: `${(bytes.length / 1024 / 1024).toFixed(1)} MB`,
      runs: 5,
      median: await time(5, () => rewriteModel('uml', bytes, none)),
    });
  }
  return [...rows, ...(await benchDrawings()), ...(await benchTrees()), await benchComposition()];
}

async function benchDrawings(): Promise<Row[]> {
  const random = seeded(3);
  const shapes = Array.from(
    { length: 1000 },
    (_, at): DrawnShape => ({
      ...{ id: `s${at}`, element: `e${at}`, item: null, inside: -1, figure: 'box', name: `Component ${at}`, keyword: '«block»' },
      parts: [{ title: 'values', lines: ['travel: m = 3.4', 'load: kN = 120', 'speed: m/s'] }],
      ...{ x: (at % 40) * 220, y: Math.floor(at / 40) * 160, width: 170, height: 100 },
    }),
  );
  const routes = Array.from({ length: 2000 }, (_, at): DrawnRoute => {
    const [from, to] = [below(random, 1000), below(random, 1000)];
    const points = [shapes[from]!, shapes[to]!].map(({ x, y }) => ({ x: x + 85, y: y + 50 }));
    return { id: `r${at}`, element: `r${at}`, from, to, points, dashed: true, start: 'none', end: 'arrow', label: '«satisfy»' };
  });
  const paper = { ground: '#ffffff', ink: '#23241f', line: '#55584c', faint: '#d9d1bd', fill: '#ffffff', inside: '#f6f3ec', note: '#f7ecc8' };
  const measure = (text: string, { size }: { size: number }) => text.length * size * 0.5;
  const scene = buildScene({ shapes, routes });
  const size = '1,000 shapes, 2,000 lines';
  return [
    { what: 'lay out the scene of a drawing', size, runs: 9, median: await time(9, () => buildScene({ shapes, routes })) },
    { what: 'write a drawing as SVG', size, runs: 9, median: await time(9, () => writeDrawing(scene, 'Large', paper, measure)), goal: '≤ 50 ms' },
  ];
}

async function benchTrees(): Promise<Row[]> {
  const random = seeded(9);
  const rows: Row[] = [];
  for (const count of [1000, 20_000]) {
    const nodes = Array.from({ length: count }, (_, at) => ({
      parent: at === 0 ? -1 : Math.max(0, at - 1 - below(random, Math.min(at, 30))),
      along: 210,
      across: 40 + below(random, 30),
    }));
    rows.push({
      ...{ what: 'lay out a tree', size: `${count.toLocaleString('en')} nodes of different sizes`, runs: 9 },
      median: await time(9, () => layTree(nodes, { along: 120, across: 14 })),
      ...(count === 1000 && { goal: '≤ 20 ms' }),
    });
  }
  return rows;
}

async function benchComposition(): Promise<Row> {
  const random = seeded(21);
  const [components, uses] = [2000, 200_000];
  const parts: number[][] = Array.from({ length: components }, () => []);
  const types: number[] = Array.from({ length: components }, () => -1);
  for (let at = 0; at < uses; at++) {
    const whole = below(random, components - 1);
    parts[whole]!.push(types.length);
    types.push(whole + 1 + below(random, components - whole - 1));
  }
  const count = () => new Composition({ partsOf: (node) => parts[node] ?? [], typeOf: (node) => types[node]! }).below(0);
  return {
    what: 'count every use below a system',
    size: `${components.toLocaleString('en')} components, ${uses.toLocaleString('en')} parts`,
    runs: 9,
    median: await time(9, count),
    goal: 'opens at once',
  };
}
