import { foldAxis } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { outlineOf } from '../../testing/outline';
import { glyphsOf } from './glyphs';
import { buildMatrixSides } from './matrix-sides';
import { cellWords, matrixDrawing, matrixTable } from './save-matrix';

const outline = outlineOf([
  { reference: 'Chapter <1>', heading: true },
  { reference: 'REQ-1', parent: 0 },
  { reference: 'REQ-2', parent: 0 },
  { reference: 'TC-1', collection: 1 },
  { reference: 'TC-2', collection: 1 },
]);
const scope = (at: number) => ({ collections: [outline.collections[at]!], kinds: [], below: [] });
const none = new Int32Array(3).fill(-1);
const sides = buildMatrixSides(outline, {
  ...{ rows: scope(0), columns: scope(1), usagePaths: [], show: 'all' },
  entries: {
    ...{ row: Int32Array.from([101, 101, 102]), column: Int32Array.from([103, 103, 104]), rowUse: none, columnUse: none },
    ...{ mark: Uint8Array.from([0, 1, 1]), suspect: Uint8Array.from([0, 0, 1]) },
  },
});
const words = ['is verified by', 'leads to → is verified by'];
const shown = (folded: number[] = []) => {
  const [rows, columns] = [foldAxis(sides.row, new Set(folded)), foldAxis(sides.column, new Set())];
  return { outline, sides, rows, columns, cells: sides.cells.fold(rows, columns), words };
};

describe('a matrix that leaves the page', () => {
  it('is copied as cells with their heads', () => {
    expect(cellWords(shown(), { top: 1, bottom: 2, left: 0, right: 1 })).toEqual([
      ['', 'TC-1', 'TC-2'],
      ['REQ-1', 'is verified by, leads to → is verified by', ''],
      ['REQ-2', '', 'leads to → is verified by (suspect)'],
    ]);
  });

  it('is a table of the cells that say anything, with each word once, and numbers where it is folded', () => {
    const table = matrixTable(shown(), 'Matrix');
    expect(table.rows).toEqual([
      { reference: '', title: 'Chapter <1>', depth: 0 },
      { reference: 'REQ-1', title: 'REQ-1', depth: 1 },
      { reference: 'REQ-2', title: 'REQ-2', depth: 1 },
    ]);
    expect(table.cells).toEqual([1, 0, 0, 2, 1, 1]);
    expect(table.words).toEqual(['is verified by, leads to → is verified by', 'leads to → is verified by (suspect)']);
    const folded = matrixTable(shown([0]), 'Matrix');
    expect([folded.rows.length, folded.words, folded.cells]).toEqual([1, ['2', '1'], [0, 0, 0, 0, 1, 1]]);
  });

  it('is a drawing with its marks, what they stand for, and no markup of a title', () => {
    const glyphs = glyphsOf([{ way: [1] }, { way: [1, 2] }]);
    const colour = (token: string) => `#${token}`;
    const { svg, width, height } = matrixDrawing(shown(), 'A & B', glyphs, colour);
    const parsed = new DOMParser().parseFromString(svg, 'image/svg+xml');
    expect(parsed.querySelector('parsererror')).toBeNull();
    expect([parsed.documentElement.getAttribute('width'), parsed.documentElement.getAttribute('height')]).toEqual([String(width), String(height)]);
    const texts = [...parsed.querySelectorAll('text')].map((one) => one.textContent);
    expect(texts).toEqual(expect.arrayContaining(['A & B', 'Chapter <1>', 'REQ-1 REQ-1', 'TC-2 TC-2', ...words]));
    const marks = [...parsed.querySelectorAll('path')].filter((one) => glyphs.some(({ path }) => path === one.getAttribute('d')));
    // Two in the first cell, one in the second, and one of each below.
    expect(marks).toHaveLength(5);
    expect(marks.filter((one) => one.getAttribute('fill') === '#suspect')).toHaveLength(1);
  });
});

describe('glyphsOf', () => {
  it('tells marks of single steps apart by their shapes, and ways through others by one of their own', () => {
    const glyphs = glyphsOf([{ way: [1] }, { way: [1, 2] }, { way: [1] }, { way: [1, 2] }]);
    expect(new Set([glyphs[0]!.path, glyphs[1]!.path, glyphs[2]!.path]).size).toBe(3);
    expect([glyphs[1]!.path === glyphs[3]!.path, glyphs[1]!.token === glyphs[3]!.token]).toEqual([true, false]);
    expect(glyphs.map(({ isDerived }) => isDerived)).toEqual([false, true, false, true]);
  });
});
