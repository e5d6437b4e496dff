import { describe, expect, it } from 'vitest';
import { buildTreeRows, childrenByParent, pathOf } from './tree-rows';

/** 0 holds 1 and 3, 1 holds 2; 4 stands beside 0. */
const parent = [-1, 0, 1, 0, -1];

describe('a tree of elements', () => {
  const children = childrenByParent(parent);

  it('shows what is unfolded, in the order of the file', () => {
    expect(buildTreeRows(children, new Set()).map(({ at }) => at)).toEqual([0, 4]);
    expect(buildTreeRows(children, new Set([0])).map(({ at, depth, holds, open }) => [at, depth, holds, open])).toEqual([
      [0, 0, true, true],
      [1, 1, true, false],
      [3, 1, false, false],
      [4, 0, false, false],
    ]);
    expect(buildTreeRows(children, new Set([0, 1])).map(({ at }) => at)).toEqual([0, 1, 2, 3, 4]);
  });

  it('knows what stands above an element', () => {
    expect(pathOf(parent, 2)).toEqual([0, 1]);
    expect(pathOf(parent, 4)).toEqual([]);
  });

  it('goes as deep as a file does', () => {
    const deep = Array.from({ length: 20_000 }, (_, at) => at - 1);
    expect(buildTreeRows(childrenByParent(deep), new Set(deep.map((_, at) => at)))).toHaveLength(20_000);
  });
});
