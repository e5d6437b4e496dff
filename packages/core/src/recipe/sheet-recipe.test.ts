import { describe, expect, it } from 'vitest';
import { defaultScheme } from '../project/default-scheme.js';
import { applySheetRecipe, columnName, proposeSheetRecipe, type SheetRecipe } from './sheet-recipe.js';

const sheet = (rows: string[][], name = 'Tests') => ({ name, rows });
const rows = [
  ['Larkbeck tests'],
  [],
  ['ID', 'Title', 'Steps', 'Kind of test', 'Tags', 'Verifies'],
  ['TC-001', 'Opens', '1. Open\n2. Look', 'Rig test', 'rig, safety', 'SYS-001, SYS-002'],
  ['TC-002', 'Closes', 'Close it', '', '', ''],
];

describe('proposeSheetRecipe', () => {
  it('finds the sheet and the row with the column names', () => {
    const recipe = proposeSheetRecipe(defaultScheme, [sheet([['Notes', 'none']], 'Notes'), sheet(rows)]);
    expect(recipe).toMatchObject({ sheet: 'Tests', headerRow: 2, kind: 'testCase' });
    expect(recipe.columns.map((column) => column.meaning.as)).toEqual(['reference', 'title', 'field', 'field', 'field', 'link']);
  });

  it('survives an empty workbook', () => {
    expect(proposeSheetRecipe(defaultScheme, [])).toMatchObject({ sheet: '', columns: [] });
    expect(applySheetRecipe(defaultScheme, proposeSheetRecipe(defaultScheme, []), []).issues).toMatchObject([{ code: 'sheet-missing' }]);
  });
});

describe('applySheetRecipe', () => {
  const apply = (more: string[][] = [], change: Partial<SheetRecipe> = {}) => {
    const sheets = [sheet([...rows, ...more])];
    return applySheetRecipe(defaultScheme, { ...proposeSheetRecipe(defaultScheme, sheets), ...change }, sheets);
  };

  it('reads rows with steps as a list, tags and links', () => {
    const { drafts, links, issues } = apply();
    expect(drafts[0]).toMatchObject({
      reference: 'TC-001',
      title: 'Opens',
      fields: { steps: '<ol><li>Open</li><li>Look</li></ol>', testKind: 'Rig test', tags: ['rig', 'safety'] },
      place: { says: 'Tests, row 4' },
    });
    expect(drafts[1]!.fields.steps).toBe('<p>Close it</p>');
    expect(links.map((link) => [link.draft, link.linkKind, link.target])).toEqual([
      [0, 'verifies', 'SYS-001'],
      [0, 'verifies', 'SYS-002'],
    ]);
    expect(issues).toEqual([]);
  });

  it('imports the good rows and lists the bad ones with their cell', () => {
    const { drafts, issues } = apply([['', '', 'steps only', '', '', ''], [], ['TC-002', 'Twice', '', '', '', ''], ['TC-003', 'Good', '', '', '', '']]);
    expect(drafts.map((draft) => draft.reference)).toEqual(['TC-001', 'TC-002', null, 'TC-003']);
    expect(issues.map((issue) => [issue.code, issue.at])).toEqual([
      ['row-without-item', 'Tests!A6'],
      ['reference-twice', 'Tests!A8'],
    ]);
  });

  it('escapes what would be markup', () => {
    expect(apply([['TC-004', '<b>x</b>', '<script>', '', '', '']]).drafts[2]).toMatchObject({ title: '<b>x</b>', fields: { steps: '<p>&lt;script&gt;</p>' } });
  });

  it('hangs rows below a parent that stands above', () => {
    const data = [
      ['ID', 'Title', 'Parent'],
      ['A-1', 'One', ''],
      ['A-2', 'Two', 'a-1'],
      ['A-3', 'Three', 'A-9'],
    ];
    const sheets = [sheet(data)];
    const { drafts, issues } = applySheetRecipe(defaultScheme, proposeSheetRecipe(defaultScheme, sheets, 'requirement'), sheets);
    expect(drafts.map((draft) => draft.parent)).toEqual([-1, 0, -1]);
    expect(issues).toMatchObject([{ code: 'parent-unknown', at: 'Tests!C4' }]);
  });
});

describe('columnName', () => {
  it.each([
    [0, 'A'],
    [25, 'Z'],
    [26, 'AA'],
    [701, 'ZZ'],
    [702, 'AAA'],
  ])('%i is %s', (column, name) => {
    expect(columnName(column)).toBe(name);
  });
});
