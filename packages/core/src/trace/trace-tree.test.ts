import { describe, expect, it } from 'vitest';
import { buildTraceTree, type TraceStep, type TraceTreeWish } from './trace-tree.js';

/** a → b, c; b → d; c → d; d → a. */
const links: [number, number][] = [
  [0, 1],
  [0, 2],
  [1, 3],
  [2, 3],
  [3, 0],
];
const stepsOf = (node: number): TraceStep[] => links.flatMap(([from, to], link) => (from === node ? [{ link, node: to, kind: 0, reversed: false }] : []));
const tree = (more: Partial<TraceTreeWish> = {}) => {
  const { places, isCut } = buildTraceTree({ root: 0, stepsOf, levels: 9, opened: new Set(), closed: new Set(), most: 100, ...more });
  return { isCut, rows: places.map(({ key, node, parent, again, hidden }) => [key, node, parent, again, hidden]) };
};

describe('a trace tree', () => {
  it('shows what was met before again, with the way to its first place, and does not follow it again', () =>
    expect(tree().rows).toEqual([
      ['', 0, -1, -1, 0],
      ['0', 1, 0, -1, 0],
      ['1', 2, 0, -1, 0],
      ['0 2', 3, 1, -1, 0],
      ['1 3', 3, 2, 3, 0],
      ['0 2 4', 0, 3, 0, 0],
    ]));

  it('goes so many levels, and counts what is not shown', () =>
    expect(tree({ levels: 1 }).rows).toEqual([
      ['', 0, -1, -1, 0],
      ['0', 1, 0, -1, 1],
      ['1', 2, 0, -1, 1],
    ]));

  it('goes on where it was opened, and stops where it was closed', () => {
    expect(tree({ levels: 1, opened: new Set(['1']) }).rows.map(([key]) => key)).toEqual(['', '0', '1', '1 3']);
    expect(tree({ closed: new Set(['0']) }).rows.map(([key, , , , hidden]) => [key, hidden])).toEqual([
      ['', 0],
      ['0', 1],
      ['1', 0],
      ['1 3', 0],
      ['1 3 4', 0],
    ]);
  });

  it('says that it was cut where there would be too much', () => {
    const { rows, isCut } = tree({ most: 3 });
    expect(isCut).toBe(true);
    expect(rows).toHaveLength(3);
  });
});
