import { describe, expect, it } from 'vitest';
import { findUsePaths } from './find-paths.js';

/** What each node is used in. */
const used = (wholes: Record<number, number[]>) => (node: number) => wholes[node] ?? [];

describe('ways in which something is used', () => {
  it('lead from what is used in nothing down to it, shorter ones first', () => {
    // 3 is used in 2 and in 1; 2 is used in 0; 1 stands alone.
    expect(findUsePaths(used({ 3: [2, 1], 2: [0] }), 3)).toEqual({
      paths: [
        [1, 3],
        [0, 2, 3],
      ],
      cut: false,
    });
  });

  it('are none for what stands alone', () => {
    expect(findUsePaths(used({}), 0).paths).toEqual([]);
  });

  it('end where something contains itself', () => {
    expect(findUsePaths(used({ 0: [1], 1: [0] }), 0).paths).toEqual([[1, 0]]);
  });

  it('are no more than asked for, and that there are more is said', () => {
    // Seven levels of three wholes each: 2,187 ways.
    const wholes = Object.fromEntries(Array.from({ length: 21 }, (_, node) => [node, [0, 1, 2].map((one) => (Math.floor(node / 3) + 1) * 3 + one)]));
    const { paths, cut } = findUsePaths(used(wholes), 0, 100);
    expect(paths).toHaveLength(100);
    expect(cut).toBe(true);
    expect(new Set(paths.map((path) => path.join())).size).toBe(100);
  });
});
