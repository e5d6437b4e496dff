import { defaultScheme, type DocumentRecipe, proposeDocumentRecipe, type SourceTable } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { buildLeads, findReferenceTest, nameCells, nameMeaning } from './recognised';

const table = (...rows: string[][]): SourceTable => ({ type: 'table', at: 1, rows: rows.map((row) => row.map((text) => ({ text, html: text, span: 1 }))) });
const recipeOf = (...blocks: SourceTable[]): DocumentRecipe => proposeDocumentRecipe(defaultScheme, { blocks, pictures: new Map() });

describe('what a recipe takes the cells of a table for', () => {
  it('stands below the names of columns', () => {
    const items = table(['ID', 'Requirement', 'Remark', 'Derived from'], ['SYS-1', 'Hold.', '', 'NEED-1']);
    expect([...nameCells(defaultScheme, recipeOf(items), items)]).toEqual([
      ['0:0', 'reference'],
      ['0:1', 'text'],
      ['0:3', 'is derived from'],
    ]);
  });

  it('stands beside the labels of a card', () => {
    const card = table(['ID', 'SYS-1'], ['Priority:', 'High'], ['Text', 'Hold.']);
    expect([...nameCells(defaultScheme, recipeOf(card), card)]).toEqual([
      ['0:0', 'reference'],
      ['1:0', 'priority'],
      ['2:0', 'text'],
    ]);
  });

  it('is nothing for tables of text', () => {
    const text = table(['Term', 'Remark'], ['berth', 'a place']);
    expect(nameCells(defaultScheme, recipeOf(text), text).size).toBe(0);
  });
});

it('says meanings in words', () => {
  const of = (meaning: Parameters<typeof nameMeaning>[2]) => nameMeaning(defaultScheme, 'requirement', meaning);
  expect(of({ as: 'link', linkKind: 'derives', reversed: true })).toBe('leads to');
  expect(of({ as: 'field', field: 'gone' })).toBe('gone');
  expect(of({ as: 'number' })).toBe('outline number');
  expect(of({ as: 'ignore' })).toBeUndefined();
});

it('finds labels at the start of lines, and phrases with what they lead to', () => {
  const find = buildLeads({
    labels: [
      { label: 'Priority', meaning: { as: 'field', field: 'priority' } },
      { label: 'Note', meaning: { as: 'ignore' } },
    ],
    phrases: [{ words: 'traces to', meaning: { as: 'link', linkKind: 'derives', reversed: false } }],
  });
  const text = 'It closes, traces to NEED-1.\n Priority: High\nNote: by hand; the Priority: none';
  expect(find(text).map(({ start, end }) => text.slice(start, end))).toEqual(['traces to NEED-1', 'Priority:']);
});

it('takes usual references while a pattern is being written', () => {
  expect(findReferenceTest('[')('SYS-001 x')).toBe(true);
  expect(findReferenceTest('X(\\d)')('SYS-001 x')).toBe(false);
});
