import { describe, expect, it } from 'vitest';
import type { SheetMerge, SourceSheet } from '../source/document.js';
import { countHeaderRows, MergedCells, readHeader } from './sheet-layout.js';

const merge = (top: number, left: number, bottom: number, right: number): SheetMerge => ({ top, left, bottom, right });
const sheet: SourceSheet = {
  name: 'A',
  rows: [
    ['Control software of the weir'],
    ['ID', 'Requirement', 'Verification', '', 'Link'],
    ['', '', 'Method', 'Stage', ''],
    ['Gates'],
    ['SW-1', 'Close', 'Test', 'Rig', 'A'],
    ['', '', 'Analysis', 'Desk', ''],
    ['SW-2', 'Open', 'Test', '', 'B'],
  ],
  merges: [
    merge(0, 0, 0, 4),
    merge(1, 2, 1, 3),
    merge(1, 0, 2, 0),
    merge(1, 1, 2, 1),
    merge(1, 4, 2, 4),
    merge(3, 0, 3, 4),
    merge(4, 0, 5, 0),
    merge(4, 4, 6, 4),
  ],
};

describe('a header over several rows', () => {
  it('is found by cells that reach down or across, not by a title above', () => {
    expect(countHeaderRows(sheet, 2)).toBe(2);
    expect(countHeaderRows(sheet, 1)).toBe(1);
    expect(countHeaderRows({ ...sheet, merges: [] }, 2)).toBe(1);
  });

  it('names columns by the words above one another, each once', () => {
    expect(readHeader(sheet, 2, 2)).toEqual(['ID', 'Requirement', 'Verification / Method', 'Verification / Stage', 'Link']);
    expect(readHeader(sheet, 2)).toEqual(['', '', 'Method', 'Stage', '']);
    expect(readHeader(sheet, 40, 2)).toEqual([]);
  });
});

describe('merged cells', () => {
  const merged = new MergedCells(sheet, 5);

  it('tell which row a cell goes on from', () => {
    expect([4, 5, 6].map((row) => merged.above(row, 0))).toEqual([undefined, 4, undefined]);
    expect([3, 4, 5, 6, 7].map((row) => merged.above(row, 4))).toEqual([undefined, undefined, 4, 4, undefined]);
    expect(merged.above(5, 2)).toBeUndefined();
  });

  it('fill the rows they reach into', () => {
    expect(merged.fill(5)).toEqual(['SW-1', '', 'Analysis', 'Desk', 'A']);
    expect(merged.fill(6)).toEqual(['SW-2', 'Open', 'Test', '', 'A'].map((cell, at) => (at === 4 ? 'B' : cell)));
    expect(new MergedCells({ ...sheet, merges: [] }, 5).fill(4)).toBe(sheet.rows[4]);
  });

  it('across a row that holds nothing else are its title', () => {
    expect([0, 3, 4].map((row) => merged.band(row))).toEqual(['Control software of the weir', 'Gates', undefined]);
    const filled = new MergedCells({ ...sheet, rows: sheet.rows.with(3, ['Gates', '', '', '', 'x']) }, 5);
    expect(filled.band(3)).toBeUndefined();
  });
});
