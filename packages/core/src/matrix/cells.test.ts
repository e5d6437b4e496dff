import { describe, expect, it } from 'vitest';
import { below, seeded } from '../testing/random.js';
import { type MatrixEntries, MatrixCells } from './cells.js';
import { foldAxis } from './fold.js';

/** An axis in outline order: each item stands below the one before it, below one of its ancestors, or on its own. */
function axisOf(random: () => number, count: number): { parent: Int32Array } {
  const parent = new Int32Array(count).fill(-1);
  for (let item = 1; item < count; item++) {
    let above = item - 1;
    while (above >= 0 && random() < 0.4) above = parent[above]!;
    parent[item] = above;
  }
  return { parent };
}

function entriesOf(random: () => number, count: number, rows: number, columns: number): MatrixEntries {
  const numbers = (most: number) => Array.from({ length: count }, () => below(random, most));
  return {
    row: Int32Array.from(numbers(rows)),
    column: Int32Array.from(numbers(columns)),
    mark: Uint8Array.from(numbers(31)),
    suspect: Uint8Array.from(numbers(2)),
  };
}

describe('MatrixCells', () => {
  it.each([1, 2, 3, 4])('loses no entry, mark or suspicion under any fold (seed %i)', (seed) => {
    const random = seeded(seed);
    const [rows, columns] = [axisOf(random, 50), axisOf(random, 40)];
    const entries = entriesOf(random, 400, 50, 40);
    const fold = (count: number) => new Set(Array.from({ length: 6 }, () => below(random, count)));
    const [r, c] = [foldAxis(rows, fold(50)), foldAxis(columns, fold(40))];
    const cells = MatrixCells.build(50, 40, entries).fold(r, c);
    const slow = new Map<string, { count: number; marks: number; suspect: number }>();
    for (let i = 0; i < 400; i++) {
      const key = `${r.lineOf[entries.row[i]!]} ${c.lineOf[entries.column[i]!]}`;
      const cell = slow.get(key) ?? { count: 0, marks: 0, suspect: 0 };
      slow.set(key, { count: cell.count + 1, marks: cell.marks | (1 << entries.mark[i]!), suspect: cell.suspect + entries.suspect[i]! });
    }
    let found = 0;
    r.lines.forEach((_, row) => {
      let inRow = 0;
      c.lines.forEach((__, column) => {
        expect(cells.at(row, column)).toEqual(slow.get(`${row} ${column}`));
        inRow += cells.at(row, column)?.count ?? 0;
      });
      expect(cells.rowTotal(row)).toBe(inRow);
      expect([...cells.row(row).columns]).toEqual([...cells.row(row).columns].sort((a, b) => a - b));
      found += inRow;
    });
    expect(found).toBe(400);
    expect([...c.lines.keys()].reduce((sum, column) => sum + cells.columnTotal(column), 0)).toBe(400);
  });

  it('gives the entries of some rows in the order of their columns', () => {
    const cells = MatrixCells.build(3, 4, {
      row: Int32Array.from([2, 0, 2, 0]),
      column: Int32Array.from([3, 1, 0, 1]),
      mark: new Uint8Array(4),
      suspect: new Uint8Array(4),
    });
    expect([...cells.entriesOf(2)]).toEqual([2, 0]);
    expect([...cells.entriesOf(0, 3)]).toEqual([1, 3, 2, 0]);
    expect([cells.countRow(0), cells.countRow(1), cells.countColumn(1), cells.countColumn(2)]).toEqual([2, 0, 2, 0]);
  });

  it('refuses what stands outside', () => {
    const entries = { row: Int32Array.from([1]), column: Int32Array.from([0]), mark: new Uint8Array(1), suspect: new Uint8Array(1) };
    expect(() => MatrixCells.build(1, 1, entries)).toThrow('outside 1 × 1');
  });
});
