import { describe, expect, it } from 'vitest';
import { below, seeded } from '../testing/random.js';
import { defaultScheme } from '../scheme/starters/index.js';
import { gatherAlongDiagonal } from './gather.js';
import { type PackedEntries, packEntries, unpackEntries } from './pack-entries.js';
import { proposeMarks } from './propose-marks.js';
import { sayWay } from '../register/say-register.js';

describe('gatherAlongDiagonal', () => {
  /** Blocks along the diagonal, shuffled on both sides. */
  const shuffled = (seed: number) => {
    const random = seeded(seed);
    const shuffle = (count: number) => {
      const order = Array.from({ length: count }, (_, i) => i);
      for (let i = count - 1; i > 0; i--) {
        const at = below(random, i + 1);
        [order[i], order[at]] = [order[at]!, order[i]!];
      }
      return order;
    };
    const [rows, columns] = [shuffle(60), shuffle(40)];
    const pairs = Array.from({ length: 300 }, () => {
      const block = below(random, 10);
      return [rows[block * 6 + below(random, 6)]!, columns[block * 4 + below(random, 4)]!] as const;
    });
    return [Int32Array.from(pairs, ([a]) => a), Int32Array.from(pairs, ([, b]) => b)] as const;
  };

  it.each([1, 2, 3])('finds blocks that were shuffled (seed %i)', (seed) => {
    const [row, column] = shuffled(seed);
    const found = gatherAlongDiagonal(60, 40, row, column);
    expect(found.before).toBeGreaterThan(0.25);
    expect(found.after).toBeLessThan(0.06);
    expect([...found.rows].sort((a, b) => a - b)).toEqual(Array.from({ length: 60 }, (_, i) => i));
    expect([...found.columns].sort((a, b) => a - b)).toEqual(Array.from({ length: 40 }, (_, i) => i));
    expect(gatherAlongDiagonal(60, 40, row, column)).toEqual(found);
  });

  it('is never worse than what was given, and puts what has no link last', () => {
    const row = Int32Array.from([1, 2, 3]);
    const found = gatherAlongDiagonal(5, 4, row, row);
    expect(found.after).toBeLessThanOrEqual(found.before);
    const gathered = gatherAlongDiagonal(4, 3, Int32Array.from([1, 3, 1]), Int32Array.from([2, 0, 2]));
    expect([...gathered.rows].slice(2)).toEqual([0, 2]);
    expect(gatherAlongDiagonal(2, 2, new Int32Array(0), new Int32Array(0))).toMatchObject({ before: 0, after: 0 });
  });
});

describe('packEntries', () => {
  it.each([1, 2, 3])('gives back what was packed (seed %i)', (seed) => {
    const random = seeded(seed);
    const numbers = (most: number, least = 0) => Array.from({ length: 500 }, () => below(random, most - least) + least);
    const entries = {
      row: Int32Array.from(numbers(2 ** 30)),
      column: Int32Array.from(numbers(2 ** 30)),
      mark: Uint8Array.from(numbers(31)),
      suspect: Uint8Array.from(numbers(2)),
      rowUse: Int32Array.from(numbers(3, -1)),
      columnUse: Int32Array.from(numbers(2 ** 20, -1)),
    };
    expect(unpackEntries(packEntries(entries))).toEqual(entries);
  });

  it.each([4, 5])('sorts what stands together in a row by its columns, and loses nothing (seed %i)', (seed) => {
    const random = seeded(seed);
    const numbers = (most: number, least = 0) => Array.from({ length: 400 }, () => below(random, most - least) + least);
    // Rows come in runs, some of them again later, as several marks make them.
    const row = Int32Array.from({ length: 400 }, (_, at) => Math.floor(at / 7) % 20);
    const entries = { row, column: Int32Array.from(numbers(50)), mark: Uint8Array.from(numbers(30)), suspect: Uint8Array.from(numbers(2)) };
    const uses = { rowUse: Int32Array.from(numbers(3, -1)), columnUse: Int32Array.from(numbers(3, -1)) };
    const says = (of: PackedEntries) =>
      Array.from(of.row, (one, at) => [one, of.column[at], of.mark[at], of.suspect[at], of.rowUse[at], of.columnUse[at]].join(' '));
    const back = unpackEntries(packEntries({ ...entries, ...uses }));
    expect(says(back).toSorted()).toEqual(says({ ...entries, ...uses }).toSorted());
    expect([...back.row]).toEqual([...row]);
    for (let at = 1; at < 400; at++) if (back.row[at] === back.row[at - 1]) expect(back.column[at]).toBeGreaterThanOrEqual(back.column[at - 1]!);
  });

  it('takes few bytes', () => {
    const row = Int32Array.from({ length: 1000 }, (_, i) => i >> 2);
    const none = new Int32Array(1000).fill(-1);
    const packed = packEntries({ row, column: row, mark: new Uint8Array(1000), suspect: new Uint8Array(1000), rowUse: none, columnUse: none });
    expect(packed.length).toBeLessThan(2500);
  });
});

describe('proposeMarks', () => {
  const said = (from: string, to: string) => proposeMarks(defaultScheme, [from], [to]).map((way) => sayWay(defaultScheme, way));

  it('names the direct links first, then ways through other kinds', () => {
    const found = said('need', 'testCase');
    expect(found.length).toBeGreaterThan(0);
    expect(found.some((one) => one.includes('→'))).toBe(true);
    const steps = found.map((one) => one.split('→').length);
    expect(steps).toEqual([...steps].sort((a, b) => a - b));
  });

  it('names nothing where nothing leads there', () => {
    expect(proposeMarks(defaultScheme, ['nothing'], ['testCase'])).toEqual([]);
  });
});
