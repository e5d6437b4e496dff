import { describe, expect, it } from 'vitest';
import { areaOf, inArea, readClipboard, steps, writeClipboard } from './selection';

const key = (name: string, more: object = {}) => ({ key: name, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...more });

describe('a range of cells', () => {
  it('is the same from whichever corner it was chosen', () => {
    const area = areaOf({ row: 5, column: 1 }, { row: 2, column: 3 });
    expect(area).toEqual({ top: 2, bottom: 5, left: 1, right: 3 });
    expect(areaOf({ row: 2, column: 3 }, { row: 5, column: 1 })).toEqual(area);
    expect(inArea(area, 5, 3)).toBe(true);
    expect(inArea(area, 1, 3)).toBe(false);
    expect(inArea(area, 3, 4)).toBe(false);
  });

  it('is moved through by the keys of a spreadsheet', () => {
    const size = { rows: 10, columns: 4 };
    const go = (name: string, more: object = {}) => steps(key(name, more), 5, size);
    expect(go('ArrowDown')).toEqual({ down: 1 });
    expect(go('ArrowDown', { ctrlKey: true })).toEqual({ row: 9 });
    expect(go('End')).toEqual({ column: 3 });
    expect(go('End', { ctrlKey: true })).toEqual({ row: 9, column: 3 });
    expect(go('Home', { metaKey: true })).toEqual({ row: 0, column: 0 });
    expect(go('Tab')).toEqual({ right: 1 });
    expect(go('Tab', { shiftKey: true })).toEqual({ right: -1 });
    expect(go('PageUp')).toEqual({ down: -5 });
    expect(go('a')).toBeUndefined();
    expect(go('toString')).toBeUndefined();
    expect(go('ArrowDown', { altKey: true })).toBeUndefined();
  });
});

describe('cells of a clipboard', () => {
  it('are read as spreadsheets write them: quotes, tabs and lines within cells, an end of line at the end', () => {
    expect(readClipboard('a\tb\r\nc\td\r\n')).toEqual([
      ['a', 'b'],
      ['c', 'd'],
    ]);
    expect(readClipboard('"two\nlines"\t"say ""no"""\n')).toEqual([['two\nlines', 'say "no"']]);
    expect(readClipboard('a\t\n\tb')).toEqual([
      ['a', ''],
      ['', 'b'],
    ]);
    expect(readClipboard('one')).toEqual([['one']]);
    expect(readClipboard('')).toEqual([['']]);
  });

  it('take a quote that ends nowhere, or not at the end of its cell, for what it is', () => {
    expect(readClipboard('"half\tb')).toEqual([['"half', 'b']]);
    expect(readClipboard('"a" and b\tc')).toEqual([['"a" and b', 'c']]);
    expect(readClipboard('5" pipe\t6"')).toEqual([['5" pipe', '6"']]);
  });

  it('come back as they were written', () => {
    const cells = [
      ['plain', 'two\nlines', ''],
      ['say "no"', 'a\tb', '5" pipe'],
    ];
    expect(readClipboard(writeClipboard(cells))).toEqual(cells);
  });
});
