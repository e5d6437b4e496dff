import type { OutlineReply } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { filterOutline } from './filter-outline';
import { nextLens } from './through';

const column = [0, 0, 0, 0, 0];
const outline: OutlineReply = {
  ...{ seq: 1, life: 'a', day: '2026-11-28', kinds: ['k'], collections: ['c'], clause: [] },
  ...{ id: ['s', 'a', 'b', 't', 'c'], node: [10, 11, 12, 13, 14], reference: ['S', 'A', 'B', 'T', 'C'], title: ['s', 'a', 'b', 't', 'c'] },
  ...{
    kind: column,
    collection: column,
    parent: [-1, 0, 0, -1, 3],
    heading: [1, 0, 0, 1, 0],
    state: column,
    up: column,
    down: column,
    suspect: column,
    gaps: column,
  },
} as never;

describe('an outline through a lens', () => {
  it('keeps what is seen and what that stands in, with parents at their new places', () => {
    const seen = filterOutline(outline, new Set([12, 14]));
    expect(seen.reference).toEqual(['S', 'B', 'T', 'C']);
    expect(seen.parent).toEqual([-1, 0, -1, 2]);
    expect(seen.node).toEqual([10, 12, 13, 14]);
    expect(seen.clause).toEqual([]);
    expect(filterOutline(outline, new Set()).id).toEqual([]);
  });
});

describe('the next lens', () => {
  it('comes after the one that is on; after the last comes none', () => {
    expect(nextLens(['a', 'b'], undefined, 1)).toBe('a');
    expect(nextLens(['a', 'b'], 'a', 1)).toBe('b');
    expect(nextLens(['a', 'b'], 'b', 1)).toBeUndefined();
    expect(nextLens(['a', 'b'], undefined, -1)).toBe('b');
    expect(nextLens(['a'], 'gone', 1)).toBe('a');
    expect(nextLens([], undefined, 1)).toBeUndefined();
  });
});
