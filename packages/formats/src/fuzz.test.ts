import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  applyModelRecipe,
  proposeModelRecipe,
  defaultScheme,
  applyDocumentRecipe,
  applyExchangeRecipe,
  applySheetRecipe,
  proposeDocumentRecipe,
  proposeExchangeRecipe,
  proposeSheetRecipe,
} from '@coomb/core';
import { seeded } from '@coomb/core/testing';
import { describe, expect, it } from 'vitest';
import { readFileContent } from './file-formats.js';
import { ReadError } from './read-error.js';
import { docxOf, paragraph, run, style, table, cell, xlsxOf, zipOf } from './testing/office-files.js';
import { linesOf, pdfOf } from './testing/pdf-files.js';

const demo = (name: string) => readFileSync(join(process.cwd(), 'demo', 'files', name));

const seeds: Record<string, Uint8Array> = {
  'a.docx': docxOf(
    paragraph(run('Levels'), style('Heading1')) +
      paragraph(run('SYS-001: shall hold')) +
      table([cell(paragraph(run('ID'))), cell(paragraph(run('Requirement')))], [cell(paragraph(run('SYS-2'))), cell(paragraph(run('x')))]),
  ),
  'a.xlsx': xlsxOf({
    A: '<row r="1"><c r="A1" t="inlineStr"><is><t>ID</t></is></c><c r="B1" t="inlineStr"><is><t>Title</t></is></c></row><row r="2"><c r="A2"><v>1</v></c></row>',
  }),
  'a.csv': Buffer.from('ID;Title;Verifies\nTC-1;"Opens; fast";SYS-1\n'),
  'a.reqif': demo('7 Gate drive of the supplier.reqif').subarray(0, 9000),
  'a.reqifz': zipOf({ 'g.reqif': demo('7 Gate drive of the supplier.reqif'), 'media/a.png': 'x' }),
  'a.md': Buffer.from('# Gates\n\n- SYS-1: shall *stop*\n\n| ID | Text |\n|---|---|\n| A | b |\n'),
  'a.html': Buffer.from('<h1>Gates</h1><table><tr><td colspan=2>a</table><p>SYS-1: shall <b>stop</b>'),
  'a.pdf': pdfOf([linesOf([['Gates', 18], ['SYS-1: The gate shall stop.'], [''], ['It is grey.']])]),
  'a.xmi': demo('3 Larkbeck model.xmi').subarray(0, 6000),
  'a.xml': demo('6 Site run 3.xml'),
};

/** Text formats are broken inside their text; archives in their bytes. */
function mutate(random: () => number, bytes: Uint8Array): Uint8Array {
  const broken = Buffer.from(bytes);
  const at = () => Math.floor(random() * broken.length);
  const times = 1 + Math.floor(random() * 6);
  for (let i = 0; i < times; i++) {
    const chance = random();
    if (chance < 0.4) broken[at()] = Math.floor(random() * 256);
    else if (chance < 0.6) broken.copyWithin(at(), at(), at());
    else if (chance < 0.8) broken.fill(Math.floor(random() * 256), at(), at());
    else return broken.subarray(0, at());
  }
  return broken;
}

/** Reads a file and everything that would be made of it. */
async function swallow(name: string, bytes: Uint8Array): Promise<'read' | 'refused'> {
  try {
    const { content } = await readFileContent(name, bytes);
    if (content.type === 'document') applyDocumentRecipe(defaultScheme, proposeDocumentRecipe(defaultScheme, content.document), content.document);
    if (content.type === 'sheets') applySheetRecipe(defaultScheme, proposeSheetRecipe(defaultScheme, content.sheets), content.sheets);
    if (content.type === 'exchange') applyExchangeRecipe(defaultScheme, proposeExchangeRecipe(defaultScheme, content.exchange), content.exchange);
    if (content.type === 'model') applyModelRecipe(defaultScheme, proposeModelRecipe(defaultScheme, content.model), content.model);
    return 'read';
  } catch (error) {
    if (!(error instanceof ReadError)) throw error;
    expect(error.message.length).toBeGreaterThan(10);
    return 'refused';
  }
}

describe.each(Object.entries(seeds))('%s', (name, bytes) => {
  it('is read when whole', async () => {
    if (name !== 'a.xmi' && name !== 'a.reqif') expect(await swallow(name, bytes)).toBe('read');
  });

  it('is read or refused in words when broken, never anything else', async () => {
    const random = seeded(name.length * 7919);
    const outcomes = new Set<string>();
    for (let i = 0; i < 150; i++) outcomes.add(await swallow(name, mutate(random, bytes)));
    expect(outcomes.size).toBeGreaterThan(0);
  });
});
