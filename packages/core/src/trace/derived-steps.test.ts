import { describe, expect, it } from 'vitest';
import { deriveSteps } from './derived-steps.js';
import type { TraceStep } from './trace-tree.js';

/** A drive 0 with motor 1 and travel 2 inside; requirements 7, 8, 9. Links as [from, to, kind]. */
const links: [number, number, number][] = [
  [0, 7, 0],
  [1, 7, 0],
  [1, 8, 0],
  [2, 8, 0],
  [2, 8, 1],
  [1, 2, 0],
  [2, 9, 0],
];
const stepsOf = (node: number): TraceStep[] => links.flatMap(([from, to, kind], link) => (from === node ? [{ link, node: to, kind, reversed: false }] : []));
const derive = (inside: number[]) => deriveSteps(stepsOf(0), inside, stepsOf).map(({ node, kind, link, through }) => [node, kind, link, through]);

describe('steps that follow from what is inside', () => {
  it('are one for each end and kind, with everything that they go through; what the item has itself is left out, and what stays inside', () =>
    expect(derive([1, 2])).toEqual([
      [8, 0, 2, [1, 2]],
      [8, 1, 4, [2]],
      [9, 0, 6, [2]],
    ]));

  it('lead to what is no longer inside', () =>
    expect(derive([1])).toEqual([
      [8, 0, 2, [1]],
      [2, 0, 5, [1]],
    ]));

  it('are none where nothing is inside', () => expect(derive([])).toEqual([]));
});
