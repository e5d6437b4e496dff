import type { ModelDocument } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { type Mark, type Part, writeXmi, xmiDialects } from '../testing/xmi-files.js';
import { readXmi } from './read-xmi.js';
import { writeStandardXmi } from './write-standard.js';
import { openXmiFile } from './xmi-file.js';

const plant: Part = {
  type: 'Model',
  id: 'm',
  name: 'Plant',
  inside: [
    {
      type: 'Class',
      id: 'gate',
      name: 'gate',
      inside: [{ type: 'Property', tag: 'ownedAttribute', id: 'd', name: 'drive', values: { aggregation: 'composite' }, ends: { type: ['drive'] } }],
    },
    { type: 'Class', id: 'drive', name: 'Drive "A" & B' },
    { type: 'Abstraction', id: 'sat', ends: { client: ['gate', 'drive'], supplier: ['r'] } },
    { type: 'Class', id: 'r', name: 'Wish' },
  ],
};
const marks: Mark[] = [
  { stereotype: 'Requirement', base: 'Class', on: 'r', values: { id: 'gate', text: 'A line.\nAnother.' } },
  { stereotype: 'Satisfy', base: 'Abstraction', on: 'sat' },
  { stereotype: 'Risky', base: 'Class', on: 'gate', values: { level: 'high' } },
];
const said = ({ elements, relations, drawings }: ModelDocument) => ({
  elements: elements.map(({ line: _, file: __, ...element }) => element),
  relations: relations.map(({ line: _, file: __, ...relation }) => relation),
  drawings: drawings.map(({ line: _, ...drawing }) => drawing),
});
const inStandard = async (bytes: Uint8Array) => Buffer.from(writeStandardXmi([await openXmiFile('', bytes)], 'Coomb'));

describe("the standard's own way", () => {
  it.each(Object.entries(xmiDialects))('says the same as the dialect: %s', async (_, dialect) => {
    const file = writeXmi(plant, marks, dialect);
    const standard = await inStandard(file);
    const [before, after] = [await readXmi(file), await readXmi(standard)];
    expect(said(after.model)).toEqual(said(before.model));
    expect(after.model.exporter).toBe('Coomb');
    expect(after.issues).toEqual([]);
    const text = standard.toString();
    expect(text).toContain('xmlns:uml="http://www.omg.org/spec/UML/20161101"');
    expect(text).toMatch(/<sysml:Satisfy [^>]*base_Abstraction="sat"/);
    expect(text).not.toContain('Extension');
  });

  it.each(['3 Larkbeck model.xmi', '10 Drive of the supplier.xmi'])('carries drawings with their positions: %s', async (name) => {
    const file = readFileSync(join(process.cwd(), 'demo', 'files', name));
    const [before, after] = [await readXmi(file), await readXmi(await inStandard(file))];
    expect(said(after.model)).toEqual(said(before.model));
    expect(after.model.drawings.length).toBeGreaterThan(0);
  });

  it('is the same again when it is written again', async () => {
    const once = await inStandard(writeXmi(plant, marks, xmiDialects['elements, other prefixes, marks before']));
    expect((await inStandard(once)).equals(once)).toBe(true);
  });
});
