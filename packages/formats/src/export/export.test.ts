import { applyDocumentRecipe, applySheetRecipe, defaultScheme, type RecipeOutcome, usualIdentifier } from '@coomb/core';
import { below, pick, seeded } from '@coomb/core/testing';
import { describe, expect, it } from 'vitest';
import { readCsv } from '../csv/read-csv.js';
import { readMarkdown } from '../markdown/read-markdown.js';
import { plainText, sanitiseRichText } from '../rich-text/sanitise.js';
import { buildColumns, buildDocumentRecipe, buildSheetRecipe, type ExportItem } from './export-items.js';
import { guardFormula, writeCsv } from './write-csv.js';
import { writeMarkdown } from './write-markdown.js';

const item = (reference: string, change: Partial<ExportItem> = {}): ExportItem => ({
  id: reference,
  reference,
  externalId: null,
  title: `Title of ${reference}`,
  html: `<p>Text of ${reference}.</p>`,
  kind: 'requirement',
  heading: false,
  parent: null,
  depth: 0,
  fields: {},
  links: [],
  ...change,
});

const items: ExportItem[] = [
  item('SYS-S-001', { heading: true, title: 'Gates', html: '<p>All of them.</p>' }),
  item('SYS-001', {
    parent: 'SYS-S-001',
    depth: 1,
    fields: { priority: 'High', method: ['Test', 'Analysis'] },
    links: [{ linkKind: 'derives', reversed: false, phrase: 'is derived from', targets: ['NEED-1', 'NEED-2'] }],
  }),
  item('SYS-002', { parent: 'SYS-001', depth: 2, title: '=2+3', html: '<p>First line.</p><p>Second, with "quotes" &amp; signs.</p>' }),
];

/** What counts of an outcome: outline, texts, fields and links. */
function gist({ drafts, links }: RecipeOutcome) {
  return drafts.map((draft) => ({
    reference: draft.role === 'section' ? null : draft.reference,
    role: draft.role,
    title: draft.title,
    text: plainText(sanitiseRichText(draft.html)),
    parent: draft.parent < 0 ? null : drafts[draft.parent]!.title,
    fields: draft.fields,
    links: links.filter((link) => link.draft === draft.key).map((link) => `${link.linkKind} ${link.target}`),
  }));
}

function expected(list: ExportItem[]) {
  const byReference = new Map(list.map((one) => [one.reference, one]));
  return list.map((one) => ({
    reference: one.heading ? null : one.reference,
    role: one.heading ? 'section' : 'item',
    title: one.title,
    text: plainText(one.html),
    parent: one.parent === null ? null : byReference.get(one.parent)!.title,
    fields: one.fields,
    links: one.links.flatMap((link) => link.targets.map((target) => `${link.linkKind} ${target}`)),
  }));
}

function throughCsv(list: ExportItem[]) {
  const columns = buildColumns(defaultScheme, list, plainText);
  const csv = writeCsv([columns.map((column) => column.name), ...list.map((one) => columns.map((column) => column.valueOf(one)))]);
  const { sheets } = readCsv(Buffer.from(csv), 'Gates.csv');
  return applySheetRecipe(defaultScheme, buildSheetRecipe(columns, 'Gates', 'requirement'), sheets);
}

function throughMarkdown(list: ExportItem[]) {
  const columns = buildColumns(defaultScheme, list, plainText);
  const { document } = readMarkdown(Buffer.from(writeMarkdown(list, columns)));
  return applyDocumentRecipe(defaultScheme, buildDocumentRecipe(columns, 'Gates', 'requirement', usualIdentifier), document);
}

describe('what goes out comes back', () => {
  it('through separated values', () => {
    const outcome = throughCsv(items);
    expect(outcome.issues).toEqual([]);
    expect(gist(outcome)).toEqual(expected(items));
  });

  it('through Markdown', () => {
    const outcome = throughMarkdown(items);
    expect(outcome.issues).toEqual([]);
    expect(gist(outcome)).toEqual(expected(items));
  });

  it.each([1, 2, 3, 4, 5])('of any shape, through both (seed %i)', (seed) => {
    const random = seeded(seed);
    const words = ['gate', 'lock', '*star*', '_line_', '1. one', '# hash', 'a | b', '<tag>', '-dash', '`tick`', 'x: y', '+plus'];
    const list: ExportItem[] = [];
    for (let i = 0; i < 25; i++) {
      const parents = list.filter((one) => one.depth < 3);
      const parent = parents.length && random() < 0.7 ? pick(random, parents.slice(-1)) : null;
      const heading = random() < 0.2 && (parent === null || parent.heading);
      list.push(
        item(`SYS-${100 + i}`, {
          parent: parent?.reference ?? null,
          depth: parent ? parent.depth + 1 : 0,
          heading,
          title: `${pick(random, words)} ${i}`,
          html: Array.from({ length: 1 + below(random, 2) }, () => `<p>Says ${pick(random, words).replace(/</g, '&lt;').replace(/>/g, '&gt;')} here.</p>`).join(
            '',
          ),
          ...(!heading && random() < 0.5 && { fields: { priority: pick(random, ['High', 'Low']) } }),
        }),
      );
    }
    // Markdown tells the outline of sections by the headings before: items at the top would fall into the section above.
    const flat = list.map((one) => (one.parent === null ? { ...one, heading: true, fields: {} } : one));
    expect(gist(throughCsv(flat))).toEqual(expected(flat));
    expect(gist(throughMarkdown(flat))).toEqual(expected(flat));
  });
});

describe('guardFormula', () => {
  it.each([
    ['=1+1', "'=1+1"],
    ['@SUM(A1)', "'@SUM(A1)"],
    ['-2', "'-2"],
    ["'=x", "''=x"],
    ['plain', 'plain'],
    ["'tis", "'tis"],
    ['', ''],
  ])('%j becomes %j', (cell, safe) => {
    expect(guardFormula(cell)).toBe(safe);
  });
});
