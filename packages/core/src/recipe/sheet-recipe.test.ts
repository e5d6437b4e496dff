import { describe, expect, it } from 'vitest';
import { defaultScheme } from '../scheme/starters/index.js';
import { alignSheetRecipe } from './departures.js';
import { proposeSheetRecipe } from './propose-sheet-recipe.js';
import { applySheetRecipe, columnName, type SheetRecipe } from './sheet-recipe.js';

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
    expect(issues.map(({ code }) => code)).toEqual(['rows-above']);
  });

  it('imports the good rows and lists the bad ones with their cell', () => {
    const { drafts, issues } = apply([['', '', 'steps only', '', '', ''], [], ['TC-002', 'Twice', '', '', '', ''], ['TC-003', 'Good', '', '', '', '']]);
    expect(drafts.map((draft) => draft.reference)).toEqual(['TC-001', 'TC-002', null, 'TC-003']);
    expect(issues.map((issue) => [issue.code, issue.at])).toEqual([
      ['row-without-item', 'Tests!A6'],
      ['reference-twice', 'Tests!A8'],
      ['rows-above', 'Tests, row 1'],
    ]);
  });

  it('goes on with the item above where rows have neither reference nor title, when most such rows do', () => {
    const lines = [
      ['ID', 'Title', 'Steps', 'Verifies', 'Tags'],
      ['TC-1', 'Opens', 'Press', 'SYS-1', 'rig'],
      ['', '', 'Wait', 'SYS-2', 'night'],
      ['', '', 'Look', '', ''],
      ['TC-2', 'Closes', 'Press', '', ''],
      ['', '', 'Look', '', ''],
    ];
    const recipe = proposeSheetRecipe(defaultScheme, [sheet(lines)]);
    expect(recipe.goesOn).toBe(true);
    const { drafts, links, issues } = applySheetRecipe(defaultScheme, recipe, [sheet(lines)]);
    expect(drafts.map((draft) => [draft.reference, draft.fields.steps, draft.fields.tags])).toEqual([
      ['TC-1', '<p>Press</p><p>Wait</p><p>Look</p>', ['rig', 'night']],
      ['TC-2', '<p>Press</p><p>Look</p>', undefined],
    ]);
    expect(links.map((link) => [link.draft, link.target])).toEqual([
      [0, 'SYS-1'],
      [0, 'SYS-2'],
    ]);
    expect(issues).toEqual([]);
    expect(applySheetRecipe(defaultScheme, { ...recipe, goesOn: false }, [sheet(lines)]).issues.map(({ code }) => code)).toEqual(
      new Array(3).fill('row-without-item'),
    );
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

describe('what a recipe does not look at', () => {
  const gather = (...sheets: ReturnType<typeof sheet>[]) => applySheetRecipe(defaultScheme, proposeSheetRecipe(defaultScheme, sheets, 'requirement'), sheets);

  it('is told: rows above the column names, other sheets that hold something, cells beyond the last name', () => {
    const { issues } = gather(
      sheet([['Register', '', 'B'], [], ['ID', 'Title'], ['R-1', 'Gate'], ['R-2', 'Lamp', '', 'or siren']], 'List'),
      sheet([['Cover']], 'Front'),
      sheet([[''], []], 'Empty'),
    );
    expect(issues.map(({ code, at, message }) => [code, at, message])).toEqual([
      ['cells-beyond', 'List!D5', expect.stringContaining('"or siren"')],
      ['rows-above', 'List, row 1', expect.stringContaining('1 row above the column names became no item: "Register · B"')],
      ['sheets-unread', 'List', expect.stringMatching(/: Front$/)],
    ]);
  });

  it('is nothing where all is read', () => {
    expect(
      gather(
        sheet([
          ['ID', 'Title'],
          ['R-1', 'Gate', '', ''],
        ]),
      ).issues,
    ).toEqual([]);
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

describe('the outline of a sheet', () => {
  const read = (columns: Record<string, SheetRecipe['columns'][number]['meaning']>, rows: string[][], more: Partial<SheetRecipe> = {}) =>
    applySheetRecipe(
      defaultScheme,
      { name: 'R', sheet: 'S', headerRow: 0, kind: 'requirement', columns: Object.entries(columns).map(([name, meaning]) => ({ name, meaning })), ...more },
      [{ name: 'S', rows: [Object.keys(columns), ...rows] }],
    );
  const tree = ({ drafts }: ReturnType<typeof read>) => drafts.map((draft) => `${draft.title}<${draft.parent < 0 ? '' : drafts[draft.parent]!.title}`);

  it('follows outline numbers, gaps and late parents included', () => {
    const outcome = read({ No: { as: 'number' }, T: { as: 'title' } }, [
      ['1', 'a'],
      ['1.1', 'b'],
      ['1.1.2.', 'c'],
      ['2', 'd'],
      ['2.1.1', 'e'],
    ]);
    expect(tree(outcome)).toEqual(['a<', 'b<a', 'c<b', 'd<', 'e<d']);
  });

  it('follows levels where the numbers are single', () => {
    expect(
      tree(
        read({ Level: { as: 'number' }, T: { as: 'title' } }, [
          ['1', 'a'],
          ['2', 'b'],
          ['3', 'c'],
          ['2', 'd'],
          ['1', 'e'],
        ]),
      ),
    ).toEqual(['a<', 'b<a', 'c<b', 'd<a', 'e<']);
  });

  it('follows the blanks before a title', () => {
    expect(tree(read({ T: { as: 'title' } }, [['a'], ['  b'], ['    c'], ['  d'], ['e']], { indented: true }))).toEqual(['a<', 'b<a', 'c<b', 'd<a', 'e<']);
  });

  it('reads the kind by any of its names, and sections by theirs', () => {
    const outcome = read({ Type: { as: 'kind' }, T: { as: 'title' } }, [
      ['Heading', 'a'],
      ['Need', 'b'],
      ['requirements', 'c'],
      ['Wish', 'd'],
      ['', 'e'],
    ]);
    expect(outcome.drafts.map((draft) => [draft.role, draft.kind])).toEqual([
      ['section', 'requirement'],
      ['item', 'need'],
      ['item', 'requirement'],
      ['item', 'requirement'],
      ['item', 'requirement'],
    ]);
    expect(outcome.issues).toMatchObject([{ code: 'kind-unknown', at: 'S!A5', message: expect.stringContaining('"Wish"') }]);
  });

  it('leaves out rows by a value, counted and named', () => {
    const outcome = read(
      { State: { as: 'ignore' }, T: { as: 'title' } },
      [
        ['Dropped', 'a'],
        ['Open', 'b'],
        [' dropped ', 'c'],
      ],
      { skip: [{ column: 'state', values: ['Dropped'] }] },
    );
    expect(outcome.drafts.map((draft) => draft.title)).toEqual(['b']);
    expect(outcome.issues).toMatchObject([{ code: 'rows-skipped', message: '2 rows were left out, as the recipe says' }]);
  });

  it('gives every item the constants of the recipe', () => {
    expect(read({ T: { as: 'title' } }, [['a'], ['b']], { constants: { priority: 'High' } }).drafts.map((draft) => draft.fields)).toEqual([
      { priority: 'High' },
      { priority: 'High' },
    ]);
  });

  it('takes the apostrophe off that kept a cell from being a formula', () => {
    expect(read({ T: { as: 'title' } }, [["'=1+1"], ["'tis"]]).drafts.map((draft) => draft.title)).toEqual(['=1+1', "'tis"]);
  });

  it('reads fifty thousand rows without a search per row', () => {
    const rows = Array.from({ length: 50_000 }, (_, i) => [`R-${i}`, `Title ${i}`, i ? `R-${Math.floor(i / 10)}` : '']);
    const outcome = read({ ID: { as: 'reference' }, T: { as: 'title' }, P: { as: 'parent' } }, rows);
    expect(outcome.drafts).toHaveLength(50_000);
    expect(outcome.drafts.at(-1)!.parent).toBe(4999);
  });
});

describe('merged cells', () => {
  const merge = (top: number, left: number, bottom: number, right: number) => ({ top, left, bottom, right });
  const merged = {
    name: 'SW',
    rows: [
      ['ID', 'Requirement', 'Verification', '', 'Priority', 'Derived from'],
      ['', '', 'Method', 'Owner', '', ''],
      ['Gates'],
      ['SW-1', 'Close', 'Test', 'Rig', 'High', 'SYS-1'],
      ['', 'at once', 'Analysis', 'Desk', 'Low', 'SYS-2'],
      ['Gauges'],
      ['SW-2', 'Read', 'Test', '', 'High', ''],
      ['SW-3', 'Show', 'Test', '', '', ''],
    ],
    merges: [merge(0, 0, 1, 0), merge(0, 1, 1, 1), merge(0, 2, 0, 3), merge(2, 0, 2, 5), merge(3, 0, 4, 0), merge(5, 0, 5, 5), merge(6, 4, 7, 4)],
  };
  const recipe = proposeSheetRecipe(defaultScheme, [merged], 'requirement');

  it('make a header of two rows and sections of rows across, by themselves', () => {
    expect(recipe).toMatchObject({ headerRow: 1, headerRows: 2, bands: true });
    expect(recipe.columns.map(({ name, meaning }) => [name, meaning.as === 'field' ? meaning.field : meaning.as])).toEqual([
      ['ID', 'reference'],
      ['Requirement', 'text'],
      ['Verification / Method', 'method'],
      ['Verification / Owner', 'owner'],
      ['Priority', 'priority'],
      ['Derived from', 'link'],
    ]);
  });

  it('make the header go on as far down as its cells reach, though the lower names mean nothing', () => {
    const rows = [
      ['ID', 'Title', 'Review', ''],
      ['', '', 'Round', 'Desk'],
      ['A-1', 'One', '1', 'x'],
    ];
    const merges = [
      { top: 0, left: 0, bottom: 1, right: 0 },
      { top: 0, left: 2, bottom: 0, right: 3 },
    ];
    expect(proposeSheetRecipe(defaultScheme, [{ name: 'S', rows, merges }], 'requirement')).toMatchObject({ headerRow: 1, headerRows: 2 });
    expect(proposeSheetRecipe(defaultScheme, [{ name: 'S', rows }], 'requirement').headerRow).toBe(0);
  });

  it('carry an item over several rows, and a value to several items', () => {
    const { drafts, links, issues } = applySheetRecipe(defaultScheme, recipe, [merged]);
    expect(drafts.map((draft) => [draft.role, draft.reference ?? draft.title, draft.parent])).toEqual([
      ['section', 'Gates', -1],
      ['item', 'SW-1', 0],
      ['section', 'Gauges', -1],
      ['item', 'SW-2', 2],
      ['item', 'SW-3', 2],
    ]);
    expect(drafts[1]).toMatchObject({ html: '<p>Close</p><p>at once</p>', fields: { method: ['Test', 'Analysis'], priority: 'High' } });
    expect(drafts[4]!.fields.priority).toBe('High');
    expect(links.map((link) => [link.draft, link.target])).toEqual([
      [1, 'SYS-1'],
      [1, 'SYS-2'],
    ]);
    expect(issues.map((issue) => [issue.code, issue.at])).toContainEqual(['row-continued', 'SW!E5']);
    expect(issues.map((issue) => [issue.code, issue.at])).toContainEqual(['row-continued', 'SW!D5']);
  });

  it('across rows are text like any other where the recipe says nothing of sections', () => {
    const { bands: _, ...plain } = recipe;
    expect(applySheetRecipe(defaultScheme, plain, [merged]).drafts.map((draft) => draft.role)).toEqual(new Array(5).fill('item'));
  });

  it('are found again in a newer file whose header moved down', () => {
    const moved = {
      ...merged,
      rows: [['Issue 2'], ...merged.rows],
      merges: merged.merges.map((one) => ({ ...one, top: one.top + 1, bottom: one.bottom + 1 })),
    };
    const { recipe: aligned, issues } = alignSheetRecipe(recipe, [moved]);
    expect([aligned.headerRow, issues]).toEqual([2, []]);
    expect(applySheetRecipe(defaultScheme, aligned, [moved]).drafts).toHaveLength(5);
  });
});

it('takes the kind from a column that says it, not from columns that only tests have', () => {
  const sheet = {
    name: 'Review',
    rows: [
      ['Reference', 'Title', 'Kind', 'Steps', 'is verified by'],
      ['SYS-S-1', 'Gates', 'Section', '', ''],
      ['SYS-1', 'Stop', 'Requirement', '', 'TC-1'],
      ['TC-1', 'Stops', 'Test case', 'Stop it.', ''],
      ['SYS-2', 'Start', 'Requirement', '', ''],
    ],
  };
  const recipe = proposeSheetRecipe(defaultScheme, [sheet]);
  expect(recipe.kind).toBe('requirement');
  const { drafts, links } = applySheetRecipe(defaultScheme, recipe, [sheet]);
  expect(drafts.map((draft) => [draft.role, draft.kind])).toEqual([
    ['section', 'requirement'],
    ['item', 'requirement'],
    ['item', 'testCase'],
    ['item', 'requirement'],
  ]);
  expect(links).toMatchObject([{ draft: 1, linkKind: 'verifies', reversed: true, target: 'TC-1' }]);
});

it.each([
  ['The gate shall hold the level within 5 cm.', 'text'],
  ['Talked about at the lock last spring.', 'ignore'],
])('takes words that bind for the text beside a title: %s', (words, as) => {
  const rows = Array.from({ length: 5 }, (_, at) => [`WX-${at}`, `Point ${at}`, words]);
  const { columns } = proposeSheetRecipe(defaultScheme, [{ name: 'Log', rows: [['Key', 'Summary', 'Detail'], ...rows] }]);
  expect(columns.map(({ meaning }) => meaning.as)).toEqual(['reference', 'title', as]);
});
