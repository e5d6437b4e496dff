import { applyDocumentRecipe, applySheetRecipe, defaultScheme, type RecipeOutcome, usualIdentifier } from '@coomb/core';
import { below, pick, seeded } from '@coomb/core/testing';
import { describe, expect, it } from 'vitest';
import { readCsv } from '../csv/read-csv.js';
import { readMarkdown } from '../markdown/read-markdown.js';
import { plainText, sanitiseRichText } from '../rich-text/sanitise.js';
import { wordsByLine } from './compare-back.js';
import { buildColumns, buildDocumentRecipe, cellText, buildSheetRecipe, type ExportItem } from './export-items.js';
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

const linesOf = (html: string) =>
  plainText(html)
    .split('\n')
    .map((line) => line.trim());

/** What counts of an outcome: outline, texts, fields and links. */
function gist({ drafts, links }: RecipeOutcome) {
  return drafts.map((draft) => ({
    reference: draft.reference,
    role: draft.role,
    title: draft.title,
    text: linesOf(sanitiseRichText(draft.html)),
    parent: draft.parent < 0 ? null : drafts[draft.parent]!.title,
    fields: draft.fields,
    links: links.filter((link) => link.draft === draft.key).map((link) => `${link.linkKind} ${link.target}`),
  }));
}

function expected(list: ExportItem[]) {
  const byReference = new Map(list.map((one) => [one.reference, one]));
  return list.map((one) => ({
    reference: one.reference,
    role: one.heading ? 'section' : 'item',
    title: one.title,
    text: linesOf(one.html),
    parent: one.parent === null ? null : byReference.get(one.parent)!.title,
    fields: one.fields,
    links: one.links.flatMap((link) => link.targets.map((target) => `${link.linkKind} ${target}`)),
  }));
}

function throughCsv(list: ExportItem[]) {
  const columns = buildColumns(defaultScheme, list, plainText);
  const csv = writeCsv([columns.map((column) => column.name), ...list.map((one) => columns.map((column) => column.valueOf(one)))]);
  const { sheets } = readCsv(Buffer.from([...csv].join('')), 'Gates.csv');
  return applySheetRecipe(defaultScheme, buildSheetRecipe(columns, 'Gates', 'requirement'), sheets);
}

function throughMarkdown(list: ExportItem[], kind = 'requirement') {
  const columns = buildColumns(defaultScheme, list, plainText);
  const { document } = readMarkdown(Buffer.from([...writeMarkdown(list, columns, kind)].join('')));
  return applyDocumentRecipe(defaultScheme, buildDocumentRecipe(columns, 'Gates', kind, usualIdentifier), document);
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

  it.each([1, 2, 3, 4, 5, 6, 7, 8])('of any shape, through both (seed %i)', (seed) => {
    const list = anyItems(seeded(seed));
    expect(gist(throughCsv(list))).toEqual(expected(list));
    const outcome = throughMarkdown(list);
    expect(gist(outcome)).toEqual(expected(list));
    expect(outcome.drafts.map((draft) => draft.html.replace(/ +(?=<)/g, ''))).toEqual(list.map((one) => one.html.replace(/ +(?=<)/g, '')));
  });

  it('even where sections stand deep, and items of another kind outside of all', () => {
    const deep = Array.from({ length: 8 }, (_, depth) =>
      item(`SYS-S-${depth}`, { heading: true, title: `Depth ${depth}`, depth, parent: depth === 0 ? null : `SYS-S-${depth - 1}` }),
    );
    const list = [
      ...deep,
      item('SYS-1', { parent: 'SYS-S-7', depth: 8 }),
      item('SYS-2', { parent: 'SYS-S-1', depth: 2 }),
      item('TC-1', { kind: 'testCase' }),
      item('TC-2', { kind: 'testCase', parent: 'TC-1', depth: 1 }),
    ];
    for (const through of [throughCsv, throughMarkdown]) {
      const outcome = through(list);
      expect(gist(outcome)).toEqual(expected(list));
      expect(outcome.drafts.map((draft) => [draft.reference, draft.kind])).toEqual(list.map((one) => [one.reference, one.kind]));
    }
  });

  it('with fields of rich text, through Markdown', () => {
    const steps = '<ol><li>Open the gate.</li><li>SYS-9: read<ul><li>Level: 3</li></ul></li></ol><p>Then <strong>close</strong> it.</p>';
    const list = [
      item('TC-S-1', { heading: true, kind: 'testCase', fields: { steps } }),
      item('TC-1', { kind: 'testCase', parent: 'TC-S-1', depth: 1, fields: { steps, expected: 'Closed\nand locked' } }),
    ];
    const outcome = throughMarkdown(list, 'testCase');
    expect(outcome.issues).toEqual([]);
    expect(outcome.drafts.map((draft) => draft.fields)).toEqual(list.map((one) => one.fields));
  });
});

const WORDS = [
  ...['gate', 'lock', '*star*', '_line_', '1. one', '2) two', '# hash', 'a | b', '<tag>', '<b>', '-dash', '- item', '`tick`', 'x: y', '+ plus', '> more'],
  ...['&amp;', '~~no~~', '[x](y)', '\\', '==', 'Priority: Low', 'SYS-900', '!', 'a & b', 'end #', '"said"', '```', '---', '<!-- x -->'],
];
const markup = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

function anyLine(random: () => number): string {
  const words = Array.from({ length: 1 + below(random, 3) }, () => markup(pick(random, WORDS)));
  const format = pick(random, ['', '', 'strong', 'em', 'u', 's', 'sub', 'sup']);
  return format ? `${words.join(' ')} <${format}>bold</${format}>` : words.join(' ');
}

/** A block of rich text such as people write. */
function anyBlock(random: () => number): string {
  const line = () => anyLine(random);
  const shape = below(random, 8);
  if (shape === 0) return `<ul><li>${line()}</li><li>${line()}<ol><li>${line()}</li></ol></li></ul>`;
  if (shape === 1) return `<ol><li>${line()}</li><li>${line()}</li></ol>`;
  if (shape === 2) return `<table><tbody><tr><th>${line()}</th><th>b</th></tr><tr><td>${line()}</td><td>${line()}</td></tr></tbody></table>`;
  if (shape === 3)
    return `<table><tbody><tr><td rowspan="2">${line()}</td><td colspan="2">${line()}</td></tr><tr><td>c</td><td>${line()}</td></tr></tbody></table>`;
  if (shape === 4) return `<p>${line()}<br />${line()}</p>`;
  return `<p>${line()}</p>`;
}

function anyItems(random: () => number): ExportItem[] {
  const list: ExportItem[] = [];
  for (let i = 0; i < 40; i++) {
    const parents = list.filter((one) => one.depth < 8);
    const parent = parents.length && random() < 0.85 ? pick(random, parents.slice(-3)) : null;
    const heading = random() < 0.3;
    list.push(
      item(`SYS-${100 + i}`, {
        parent: parent?.reference ?? null,
        depth: parent ? parent.depth + 1 : 0,
        heading,
        title: `${pick(random, WORDS)} ${pick(random, WORDS)}`,
        html: Array.from({ length: below(random, 4) }, () => anyBlock(random)).join(''),
        ...(random() < 0.5 && { fields: { priority: pick(random, ['High', 'Low']), rationale: pick(random, WORDS) } }),
      }),
    );
  }
  return list;
}

it('writes indices as signs, which are the same words when they come back', () => {
  const html = '<p>5 kN/m<sup>2</sup> below 10<sup>-3</sup> s</p>';
  expect(cellText(html)).toBe('5 kN/m² below 10⁻³ s');
  expect(wordsByLine(`<p>${cellText(html)}</p>`)).toBe(wordsByLine(html));
});

it('parts the cells of a table by bars, which spreadsheets keep', () => {
  const table = '<p>Terms</p><table><tbody><tr><td>Pool</td><td>The river</td></tr><tr><td>Head</td><td></td></tr></tbody></table>';
  expect(cellText(table)).toBe('Terms\nPool | The river\nHead');
  expect(wordsByLine('<p>Terms</p><p>Pool | The river</p><p>Head</p>')).toBe(wordsByLine(table));
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
