import { describe, expect, it } from 'vitest';
import { defaultScheme } from '../scheme/starters/index.js';
import { documentOf, type Line } from '../testing/document.js';
import { applyDocumentRecipe } from './apply-document-recipe.js';
import { findDocumentDepartures } from './departures.js';
import type { DocumentRecipe, TableMeaning } from './document-recipe.js';
import { proposeDocumentRecipe } from './propose-document-recipe.js';
import { proposeTableFor } from './propose-table.js';
import { buildReferenceTest } from './table-shape.js';

const propose = (...lines: Line[]) => proposeDocumentRecipe(defaultScheme, documentOf(...lines));
const apply = (recipe: DocumentRecipe, ...lines: Line[]) => applyDocumentRecipe(defaultScheme, recipe, documentOf(...lines));
const gather = (...lines: Line[]) => apply(propose(...lines), ...lines);
const codes = (outcome: ReturnType<typeof gather>) => outcome.issues.map((issue) => issue.code);
const on = (text: string) => ({ text, continued: true });

describe('rows that go on with the item above', () => {
  const table: Line = {
    table: [
      ['ID', 'Requirement', 'Method', 'Derived from', 'Priority'],
      ['SYS-001', 'Hold the level.', 'Test', 'NEED-001', 'High'],
      [on('SYS-001'), 'Also in flood.', 'Analysis', 'NEED-002', 'Low'],
      ['SYS-002', 'Refuse others.', 'Test', on('NEED-002'), on('Low')],
    ],
  };

  it('add their text, links and further choices, and tell what cannot stand twice', () => {
    const outcome = gather([1, 'Levels'], table);
    const [, first, second] = outcome.drafts;
    expect(outcome.drafts).toHaveLength(3);
    expect(first).toMatchObject({ reference: 'SYS-001', html: '<p>Hold the level.</p><p>Also in flood.</p>', fields: { priority: 'High' } });
    expect(first!.fields.method).toEqual(['Test', 'Analysis']);
    expect(outcome.links.map((link) => [link.draft, link.target])).toEqual([
      [1, 'NEED-001'],
      [1, 'NEED-002'],
      [2, 'NEED-002'],
    ]);
    expect(second).toMatchObject({ reference: 'SYS-002', fields: { priority: 'Low' } });
    expect(outcome.issues).toMatchObject([{ code: 'row-continued', at: 'table 1, row 3', message: expect.stringContaining('"Low" was skipped') }]);
  });
});

describe('headers', () => {
  const wide = (text: string) => ({ text, span: 2 });

  it('over two rows name columns by both', () => {
    const recipe = propose({
      table: [
        ['ID', 'Requirement', wide('Verification')],
        [on('ID'), on('Requirement'), 'Method', 'Stage'],
        ['SYS-001', 'Hold.', 'Test', 'FAT'],
      ],
    });
    expect(recipe.tables).toEqual([
      {
        header: 'ID | Requirement | Verification / Method | Verification / Stage',
        use: 'items',
        columns: [
          { name: 'ID', meaning: { as: 'reference' } },
          { name: 'Requirement', meaning: { as: 'text' } },
          { name: 'Verification / Method', meaning: { as: 'field', field: 'method' } },
          { name: 'Verification / Stage', meaning: { as: 'ignore' } },
        ],
      },
    ]);
  });

  it('are as long as the file says', () => {
    const lines: Line[] = [{ table: [['Requirements of the gate'], ['ID', 'Text'], ['SYS-001', 'Hold.']], headerRows: 2 }];
    expect(gather(...lines).drafts.map((draft) => draft.reference)).toEqual(['SYS-001']);
  });

  it('whose cell goes over several columns keep the columns in line', () => {
    const lines: Line[] = [
      {
        table: [
          ['ID', wide('Requirement')],
          ['SYS-001', 'Band', 'Hold the level within the band of 0.1 m.'],
        ],
      },
    ];
    expect(propose(...lines).tables[0]!.columns.map(({ name }) => name)).toEqual(['ID', 'Requirement', 'Requirement (2)']);
  });

  it('may be missing: a table that starts with a reference is all items', () => {
    const lines: Line[] = [
      [1, 'Levels'],
      { table: [['SYS-001', 'The gate shall hold the level within 0.1 m.', 'High']] },
      {
        table: [
          ['SYS-002', 'The gate shall refuse other commands.', 'Low'],
          ['SYS-003', 'The gate shall stop.', 'Low'],
        ],
      },
    ];
    const recipe = propose(...lines);
    expect(recipe.tables.map(({ header, use }) => [header, use])).toEqual([['no header, 3 columns', 'items']]);
    expect(recipe.tables[0]!.columns.map(({ meaning }) => meaning.as)).toEqual(['reference', 'text', 'ignore']);
    expect(apply(recipe, ...lines).drafts.map((draft) => draft.reference)).toEqual([null, 'SYS-001', 'SYS-002', 'SYS-003']);
  });
});

describe('columns whose names say nothing', () => {
  const rows = (id: (at: number) => string) =>
    Array.from({ length: 6 }, (_, at) => [id(at), 'gate', `The gate shall hold the level in every season, case ${at}.`]);
  const meanings = (...lines: string[][]) => propose({ table: lines }).tables[0]!.columns.map(({ meaning }) => meaning.as);

  it('are known by what stands in them', () => {
    expect(meanings(['Lfd', 'Teil', 'Was gilt'], ...rows((at) => `IR 1.${at}`))).toEqual(['reference', 'ignore', 'text']);
    expect(meanings(['Kennung', 'Teil', 'Was gilt'], ...rows((at) => `${at}`))).toEqual(['reference', 'ignore', 'text']);
  });

  it('stay unknown where nothing looks like a reference', () => {
    expect(meanings(['Part', 'Kind of part', 'Remark'], ...rows(() => 'pump'))).toEqual(['ignore', 'ignore', 'ignore']);
    expect(meanings(['Rank', 'Part', 'Remark'], ...rows((at) => `${at}`))).toEqual(['ignore', 'ignore', 'ignore']);
  });
});

describe('columns of kinds and of outline numbers', () => {
  const lines = (kind: string): Line[] => [
    [1, 'All'],
    {
      table: [
        ['No.', 'Section', 'Type', 'Requirement'],
        ['SYS-001', '1', kind, 'Hold the level.'],
        ['SYS-002', '1.1', '', 'Hold it in flood.'],
        ['SYS-003', '2', '', 'Refuse.'],
      ],
    },
  ];

  it('say what a row is and where it stands', () => {
    const [, first, second, third] = gather(...lines('Need')).drafts;
    expect(first).toMatchObject({ kind: 'need', parent: 0 });
    expect(second).toMatchObject({ kind: 'requirement', parent: 1 });
    expect(third).toMatchObject({ parent: 0 });
  });

  it('make sections of rows that say so, and tell kinds that nobody knows', () => {
    expect(gather(...lines('Heading')).drafts[1]!.role).toBe('section');
    expect(codes(gather(...lines('Riddle')))).toEqual(['kind-unknown']);
  });
});

it('tells a title that stands with a reference in one cell', () => {
  const [draft] = gather({
    table: [
      ['ID', 'Requirement'],
      ['SYS-001: Level band', 'Hold.'],
    ],
  }).drafts;
  expect(draft).toMatchObject({ reference: 'SYS-001', title: 'Level band' });
});

describe('cards', () => {
  const across = (text: string) => ({ text, span: 4 });
  const card = (id: string, ...more: [string, string][]): Line => ({
    table: [['ID', id, 'Priority', 'High'], ['Text', { text: `The gate ${id} shall hold.`, span: 3 }], ...more.map((pair) => [...pair])],
  });

  it('are read with several labels in a row, and cards that say more or less are of one shape', () => {
    const lines = [card('SYS-001'), card('SYS-002', ['Method', 'Test']), card('SYS-003', ['Method', 'Test'], ['Source', 'NEED-001'])];
    const recipe = propose(...lines);
    expect(recipe.tables).toMatchObject([{ use: 'fields', header: 'ID | Priority | Text | Method | Source' }]);
    const outcome = apply(recipe, ...lines);
    expect(outcome.drafts.map((draft) => [draft.reference, draft.fields])).toEqual([
      ['SYS-001', { priority: 'High' }],
      ['SYS-002', { priority: 'High', method: ['Test'] }],
      ['SYS-003', { priority: 'High', method: ['Test'] }],
    ]);
    expect(outcome.links).toHaveLength(1);
    expect(findDocumentDepartures(recipe, documentOf(...lines))).toEqual([]);
  });

  it('tell labels that the recipe knows nothing of', () => {
    const recipe = propose(card('SYS-001'));
    const outcome = apply(recipe, card('SYS-002', ['Owner', 'R. Thwaite']));
    expect(outcome.drafts[0]).toMatchObject({ reference: 'SYS-002' });
    expect(outcome.issues).toMatchObject([{ code: 'label-unknown', message: expect.stringContaining('"R. Thwaite" was skipped') }]);
  });

  it('may begin with reference and title across the table', () => {
    const lines: Line[] = [{ table: [[across('SYS-001 Level band')], ['Priority', 'High'], ['Text', 'Hold the level.']] }];
    expect(gather(...lines).drafts).toMatchObject([
      { reference: 'SYS-001', title: 'Level band', html: '<p>Hold the level.</p>', fields: { priority: 'High' } },
    ]);
  });

  it('are kept as text, and told, where their rows are no pairs', () => {
    const tables: TableMeaning[] = [{ header: 'ID | Text | More', use: 'fields', columns: [{ name: 'ID', meaning: { as: 'reference' } }] }];
    const outcome = apply({ ...propose(), tables }, [1, 'A'], {
      table: [
        ['ID', 'Text', 'More'],
        ['1', '2', '3'],
      ],
    });
    expect(codes(outcome)).toEqual(['table-no-card']);
    expect(outcome.drafts[0]!.html).toContain('<td>3</td>');
  });
});

it('reads a table for another use by its labels or by its columns', () => {
  const [block] = documentOf({
    table: [
      ['Name', 'Gate'],
      ['Priority', 'High'],
    ],
  }).blocks;
  const of = (use: TableMeaning['use']) => block!.type === 'table' && proposeTableFor(defaultScheme, 'requirement', block!, use, buildReferenceTest(''));
  expect(of('fields')).toMatchObject({ header: 'Name | Priority', columns: [{ meaning: { as: 'title' } }, { meaning: { as: 'field', field: 'priority' } }] });
  expect(of('items')).toMatchObject({ header: 'Name | Gate', columns: [{ name: 'Name' }, { name: 'Gate' }] });
});

it('takes the longest words for the text of rows that are to be items', () => {
  const [block] = documentOf({
    table: [
      ['Case', 'Flow', 'Duty'],
      ['A', '≤ 5', 'The gate must close.'],
      ['B', '≤ 9', 'The gate must open.'],
    ],
  }).blocks;
  const meanings = (use: TableMeaning['use']) =>
    block!.type === 'table' && proposeTableFor(defaultScheme, 'requirement', block!, use, buildReferenceTest('')).columns.map(({ meaning }) => meaning.as);
  expect(meanings('items')).toEqual(['ignore', 'ignore', 'text']);
  expect(meanings('text')).toEqual(['ignore', 'ignore', 'ignore']);
});
