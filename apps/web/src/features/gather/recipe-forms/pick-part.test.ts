import type { DocumentRecipe, SourceBlock } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { pickPart } from './pick-part';

const recipe: DocumentRecipe = {
  name: 'R',
  kind: 'requirement',
  headings: new Array(9).fill('section'),
  identifier: '',
  bindingWords: [],
  labels: [{ label: 'Priority', meaning: { as: 'field', field: 'priority' } }],
  tables: [
    {
      header: 'ID | Text',
      use: 'items',
      columns: [
        { name: 'ID', meaning: { as: 'reference' } },
        { name: 'Text', meaning: { as: 'text' } },
      ],
    },
  ],
};
const paragraph = (text: string, level = 0): SourceBlock => ({ type: 'paragraph', at: 1, level, text, html: text });
const table = (...rows: string[][]): SourceBlock => ({ type: 'table', at: 1, rows: rows.map((row) => row.map((text) => ({ text, html: text, span: 1 }))) });

describe('a part of a document that is clicked', () => {
  it.each<[string, SourceBlock, number | undefined, string]>([
    ['a heading', paragraph('Gates', 2), undefined, 'Headings of level 2'],
    ['a cell of a known table', table(['ID', 'Text'], ['1', 'x']), 1, 'Meaning of Text'],
    ['a label that the recipe knows', paragraph('Priority: High'), undefined, 'Meaning of Priority'],
    ['a numbered statement', paragraph('SYS-1: shall stop'), undefined, 'Shape of references'],
    ['running text', paragraph('The gate shall stop.'), undefined, 'Shape of references'],
  ])('%s leads to its line in the recipe', (_, block, column, control) => {
    const picked = pickPart(recipe, { block, ...(column !== undefined && { column }) });
    expect(picked).toEqual({ control, recipe, ...(block.type === 'table' && { table: 'ID | Text' }) });
  });

  it('is taken into the recipe when it is not there yet', () => {
    expect(pickPart(recipe, { block: paragraph('Traces to: NEED-1, NEED-2') })).toMatchObject({
      control: 'Meaning of Traces to',
      recipe: { labels: [{}, { label: 'Traces to', meaning: { as: 'ignore' } }] },
    });
    expect(pickPart(recipe, { block: table(['No.', 'Wish'], ['1', 'x']), column: 1 })).toMatchObject({
      control: 'Use of tables No. | Wish',
      recipe: { tables: [{}, { use: 'text', columns: [{ name: 'No.' }, { name: 'Wish' }] }] },
    });
  });

  it('says nothing of an empty paragraph', () => {
    expect(pickPart(recipe, { block: paragraph(' ') })).toBeUndefined();
  });
});
