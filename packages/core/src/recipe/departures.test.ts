import { describe, expect, it } from 'vitest';
import { defaultScheme } from '../scheme/starters/index.js';
import type { SourceBlock, SourceSheet } from '../source/document.js';
import type { ExchangeDocument } from '../source/exchange.js';
import { applyDocumentRecipe } from './apply-document-recipe.js';
import { alignExchangeRecipe, alignSheetRecipe, findDocumentDepartures } from './departures.js';
import type { DocumentRecipe } from './document-recipe.js';
import { proposeExchangeRecipe } from './propose-exchange-recipe.js';
import { buildReadyRecipes } from './ready-recipes.js';
import type { SheetRecipe } from './sheet-recipe.js';

const paragraph = (text: string, level = 0, at = 1): SourceBlock => ({ type: 'paragraph', at, level, text, html: text });
const table = (at: number, ...rows: string[][]): SourceBlock => ({
  type: 'table',
  at,
  rows: rows.map((row) => row.map((text) => ({ text, html: text, span: 1 }))),
});

describe('findDocumentDepartures', () => {
  const recipe: DocumentRecipe = {
    name: 'R',
    kind: 'requirement',
    headings: ['section', 'section', 'item', 'section', 'section', 'section', 'section', 'section', 'section'],
    identifier: '',
    bindingWords: [],
    labels: [{ label: 'Priority', meaning: { as: 'field', field: 'priority' } }],
    tables: [{ header: 'ID | Text', use: 'items', columns: [] }],
  };

  it('finds nothing where the document is as the recipe expects', () => {
    expect(
      findDocumentDepartures(recipe, { blocks: [paragraph('SYS-1 Level', 3), paragraph('Priority: High'), table(1, ['ID', 'Text'], ['A-1', 'x'])] }),
    ).toEqual([]);
  });

  it('says what is missing and what is new, where and how many', () => {
    const issues = findDocumentDepartures(recipe, {
      blocks: [paragraph('Urgency: High'), table(1, ['No.', 'Text'], ['1', 'x']), table(2, ['No.', 'Text'], ['2', 'y'])],
    });
    expect(issues.map((issue) => [issue.code, issue.at, issue.message])).toEqual([
      ['table-missing', 'tables', 'The recipe expects tables "ID | Text"; there is none'],
      ['table-new', 'table 1', '2 tables "No. | Text" are not in the recipe'],
      ['label-missing', 'running text', 'The recipe expects the label "Priority:"; it occurs nowhere'],
      ['heading-missing', 'headings', 'The recipe takes headings of level 3 for items; there are none'],
    ]);
  });
});

describe('alignSheetRecipe', () => {
  const recipe: SheetRecipe = {
    name: 'R',
    sheet: 'Requirements',
    headerRow: 0,
    kind: 'requirement',
    columns: [
      { name: 'ID', meaning: { as: 'reference' } },
      { name: 'Text', meaning: { as: 'text' } },
      { name: 'Owner', meaning: { as: 'field', field: 'owner' } },
    ],
  };
  const sheet = (name: string, ...rows: string[][]): SourceSheet => ({ name, rows });

  it('finds columns by name where the sheet has them in another order, below another title', () => {
    const aligned = alignSheetRecipe(recipe, [
      sheet('Notes', ['x']),
      sheet('Export 2', ['Export of today'], ['Owner', 'text ', 'ID', 'Cost'], ['Ada', 'x', 'A-1', '5']),
    ]);
    expect(aligned.recipe).toMatchObject({ sheet: 'Export 2', headerRow: 1 });
    expect(aligned.recipe.columns.map(({ meaning }) => meaning.as)).toEqual(['field', 'text', 'reference', 'ignore']);
    expect(aligned.issues.map((issue) => issue.message)).toEqual(['A column is not in the recipe and left out: Cost']);
  });

  it('names the columns that are missing', () => {
    const { issues } = alignSheetRecipe(recipe, [sheet('Requirements', ['ID', 'Text'], ['A-1', 'x'])]);
    expect(issues).toMatchObject([{ code: 'column-missing', at: 'Requirements, row 1', message: 'The recipe expects a column "Owner"; there is none' }]);
  });

  it('leaves the recipe alone when there is no sheet', () => {
    expect(alignSheetRecipe(recipe, [])).toEqual({ recipe, issues: [] });
  });
});

describe('alignExchangeRecipe', () => {
  const document = (id: string, extra: string[] = []): Pick<ExchangeDocument, 'types' | 'relationTypes' | 'objects'> => ({
    objects: [],
    types: [
      { id: `${id}-t`, name: 'Requirement', count: 3, attributes: [{ id: `${id}-a`, name: 'ReqIF.Text', type: 'rich' as const }] },
      ...extra.map((name) => ({ id: `${id}-${name}`, name, count: 2, attributes: [] })),
    ],
    relationTypes: [{ id: `${id}-r`, name: 'derived from', count: 1 }],
  });

  it('finds types, attributes and relations by name when a file gives them other identifiers', () => {
    const recipe = proposeExchangeRecipe(defaultScheme, document('one') as ExchangeDocument);
    const aligned = alignExchangeRecipe(recipe, document('two', ['Remark']));
    expect(aligned.recipe.types[0]).toMatchObject({ type: 'two-t', kind: 'requirement', attributes: [{ id: 'two-a', meaning: { as: 'text' } }] });
    expect(aligned.recipe.relations).toMatchObject([{ type: 'two-r', linkKind: 'derives' }]);
    expect(aligned.issues.map((issue) => issue.message)).toEqual(['2 objects of the type "Remark" are not in the recipe and left out']);
  });

  it('names attributes that the type lacks', () => {
    const recipe = proposeExchangeRecipe(defaultScheme, document('one') as ExchangeDocument);
    recipe.types[0]!.attributes.push({ id: 'x', name: 'Priority', meaning: { as: 'field', field: 'priority' } });
    expect(alignExchangeRecipe(recipe, document('one')).issues).toMatchObject([{ code: 'attribute-missing' }]);
  });
});

describe('ready recipes', () => {
  const blocks = [
    paragraph('Gates', 1),
    paragraph('Closing', 2),
    paragraph('SYS-001: The gate shall close.'),
    paragraph('Operators must stand clear.'),
    paragraph('A note.'),
  ];

  it.each([
    ['ready-numbered', ['SYS-001']],
    ['ready-binding', [null, null]],
    ['ready-headed', ['SYS-001']],
  ])('%s reads a document without more', (id, references) => {
    const ready = buildReadyRecipes(defaultScheme).find((one) => one.id === id)!;
    const { drafts } = applyDocumentRecipe(defaultScheme, ready.recipe, { blocks, pictures: new Map() });
    expect(drafts.filter((draft) => draft.role === 'item').map((draft) => draft.reference)).toEqual(references);
  });

  it('have names and identifiers of their own', () => {
    const ready = buildReadyRecipes(defaultScheme);
    expect(new Set(ready.map((one) => one.id)).size).toBe(ready.length);
    expect(ready.every((one) => one.recipe.headings.length === 9)).toBe(true);
  });
});
