import { describe, expect, it } from 'vitest';
import { below, seeded } from '../testing/random.js';
import { buildCells, foldAxis, narrowAxis } from './fold.js';

const tree = Int32Array.from([-1, 0, 0, 2, -1, 4]);

describe('foldAxis', () => {
  it('shows every item while nothing is folded', () => {
    const folded = foldAxis({ parent: tree }, new Set());
    expect([...folded.lines]).toEqual([0, 1, 2, 3, 4, 5]);
    expect([...folded.size]).toEqual([1, 1, 1, 1, 1, 1]);
  });

  it('lets a folded item stand for all below it', () => {
    const folded = foldAxis({ parent: tree }, new Set([0]));
    expect([...folded.lines]).toEqual([0, 4, 5]);
    expect([...folded.lineOf]).toEqual([0, 0, 0, 0, 1, 2]);
    expect([...folded.size]).toEqual([4, 1, 1]);
  });

  it('keeps an inner fold hidden inside an outer one', () => {
    expect([...foldAxis({ parent: tree }, new Set([0, 2])).lines]).toEqual([0, 4, 5]);
    expect([...foldAxis({ parent: tree }, new Set([2])).lines]).toEqual([0, 1, 2, 4, 5]);
  });

  it('refuses an axis that is not in outline order', () => {
    expect(() => foldAxis({ parent: Int32Array.from([1, -1]) }, new Set())).toThrow('outline order');
  });
});

describe('buildCells', () => {
  it.each([1, 2, 3])('loses no link under any folding (seed %i)', (seed) => {
    const random = seeded(seed);
    const axis = (count: number) => ({ parent: Int32Array.from({ length: count }, (_, index) => (index && random() < 0.7 ? below(random, index) : -1)) });
    const [rows, columns] = [axis(50), axis(40)];
    const links = { row: Int32Array.from({ length: 300 }, () => below(random, 50)), column: Int32Array.from({ length: 300 }, () => below(random, 40)) };
    const fold = (count: number) => new Set(Array.from({ length: 8 }, () => below(random, count)));
    const [r, c] = [foldAxis(rows, fold(50)), foldAxis(columns, fold(40))];
    const cells = buildCells(r, c, links);
    expect([...cells.counts.values()].reduce((sum, count) => sum + count, 0)).toBe(300);
    expect(cells.rowTotals.reduce((sum, count) => sum + count, 0)).toBe(300);
    const slow = new Map<number, number>();
    for (let i = 0; i < 300; i++) {
      const key = r.lineOf[links.row[i]!]! * c.lines.length + c.lineOf[links.column[i]!]!;
      slow.set(key, (slow.get(key) ?? 0) + 1);
    }
    expect(cells.counts).toEqual(slow);
  });
});

describe('narrowAxis', () => {
  it('keeps what is wanted, with everything above it', () => {
    expect([...narrowAxis({ parent: tree }, (item) => item === 3)]).toEqual([0, 2, 3]);
    expect([...narrowAxis({ parent: tree }, () => false)]).toEqual([]);
  });
});
