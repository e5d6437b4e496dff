import { describe, expect, it } from 'vitest';
import { compareEntries, comparedMarks, type MatrixMoment } from './compare-entries.js';

/** Entries as row, column, mark, and usages by place. */
const moment = (
  ways: string[],
  entries: [row: number, column: number, mark: number, rowUse?: number, suspect?: number][],
  usagePaths: string[][] = [],
): MatrixMoment => ({
  ways,
  usagePaths,
  entries: {
    row: Int32Array.from(entries, ([row]) => row),
    column: Int32Array.from(entries, ([, column]) => column),
    mark: Uint8Array.from(entries, ([, , mark]) => mark),
    suspect: Uint8Array.from(entries, (entry) => entry[4] ?? 0),
    rowUse: Int32Array.from(entries, (entry) => entry[3] ?? -1),
    columnUse: Int32Array.from(entries, () => -1),
  },
});
const said = (then: MatrixMoment, now: MatrixMoment) => {
  const { entries, counts, usagePaths } = compareEntries(then, now);
  const rows = Array.from(
    entries.row,
    (row, at) =>
      `${comparedMarks[entries.mark[at]!]} ${row}×${entries.column[at]}${entries.rowUse[at]! < 0 ? '' : ` in ${usagePaths[entries.rowUse[at]!]!.join('/')}`}`,
  );
  return { rows, counts };
};

describe('a matrix of two moments', () => {
  it('says what stayed, came and went', () => {
    expect(
      said(
        moment(
          ['verifies'],
          [
            [1, 2, 0],
            [1, 3, 0],
          ],
        ),
        moment(
          ['verifies'],
          [
            [1, 2, 0],
            [4, 2, 0],
          ],
        ),
      ),
    ).toEqual({
      rows: ['stayed 1×2', 'came 4×2', 'went 1×3'],
      counts: [1, 1, 1],
    });
  });

  it('tells ways apart by what they are, whatever place they have at each moment', () => {
    const then = moment(
      ['verifies', 'satisfies'],
      [
        [1, 2, 0],
        [1, 2, 1],
      ],
    );
    const now = moment(
      ['satisfies', 'derives'],
      [
        [1, 2, 0],
        [1, 2, 1],
      ],
    );
    expect(said(then, now).rows).toEqual(['stayed 1×2', 'came 1×2', 'went 1×2']);
  });

  it('tells uses apart by their paths; what holds in one use only is not what holds everywhere', () => {
    const then = moment(
      ['s'],
      [
        [1, 2, 0, 0],
        [1, 2, 0, 1],
      ],
      [
        ['lock', 'drive'],
        ['weir', 'drive'],
      ],
    );
    const now = moment(
      ['s'],
      [
        [1, 2, 0, 0],
        [1, 2, 0],
      ],
      [['weir', 'drive']],
    );
    expect(said(then, now).rows).toEqual(['stayed 1×2 in weir/drive', 'came 1×2', 'went 1×2 in lock/drive']);
  });

  it('keeps what is suspect now, and says nothing so of what went; nothing is nothing', () => {
    const both = compareEntries(moment(['s'], [[1, 1, 0, -1, 1]]), moment(['s'], [[2, 2, 0, -1, 1]]));
    expect([...both.entries.suspect]).toEqual([1, 0]);
    expect(said(moment([], []), moment([], []))).toEqual({ rows: [], counts: [0, 0, 0] });
  });
});
