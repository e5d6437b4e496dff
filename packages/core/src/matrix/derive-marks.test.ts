import { describe, expect, it } from 'vitest';
import { TraceGraph } from '../trace/graph.js';
import { findPaths, followSteps, type MarkStep } from './derive-marks.js';

// Needs 0, 1; requirements 2, 3; tests 4, 5. Kind 0: a requirement satisfies a need; kind 1: a test verifies a requirement.
const links = [
  [2, 0, 0],
  [3, 0, 0],
  [3, 1, 0],
  [4, 2, 1],
  [4, 3, 1],
  [5, 3, 1],
] as const;
const graphOf = (suspect: readonly number[] = []) =>
  TraceGraph.build({
    nodes: 6,
    from: Uint32Array.from(links, ([from]) => from),
    to: Uint32Array.from(links, ([, to]) => to),
    kind: Uint8Array.from(links, ([, , kind]) => kind),
    suspect: Uint8Array.from(links, (_, at) => Number(suspect.includes(at))),
  });
const way: MarkStep[] = [
  { kind: 0, direction: 'in' },
  { kind: 1, direction: 'in' },
];
const ends = (graph: TraceGraph, start: number, steps = way, isPresent: (node: number) => boolean = () => true) => {
  const found: [number, boolean][] = [];
  followSteps(graph, start, steps, isPresent, undefined, (end, isClean) => found.push([end, isClean]));
  return found.sort(([a], [b]) => a - b);
};

describe('followSteps', () => {
  it('comes to each end once, through whatever stands between', () => {
    expect(ends(graphOf(), 0)).toEqual([
      [4, true],
      [5, true],
    ]);
    expect(ends(graphOf(), 1)).toEqual([
      [4, true],
      [5, true],
    ]);
    expect(ends(graphOf(), 2)).toEqual([]);
  });

  it('tells an end as sound where one path to it has no suspect link', () => {
    expect(ends(graphOf([3]), 0)).toEqual([
      [4, true],
      [5, true],
    ]);
    expect(ends(graphOf([1]), 0)).toEqual([
      [4, true],
      [5, false],
    ]);
  });

  it('passes over what is not there, and ends that do not pass', () => {
    expect(ends(graphOf(), 0, way, (node) => node !== 3)).toEqual([[4, true]]);
    expect(ends(graphOf(), 0, [way[0]!, { ...way[1]!, isEnd: (node) => node === 5 }])).toEqual([[5, true]]);
  });

  it('goes on from an item only in the usage that it came to', () => {
    // The need is satisfied by requirement 3 as used in 1; test 4 verifies it as used in 2, test 5 wherever it is used.
    const usages = { usageAt: (link: number, node: number) => (node !== 3 ? 0 : link === 2 ? 1 : link === 4 ? 2 : 0), usagesOf: () => [] };
    const found: unknown[] = [];
    followSteps(
      graphOf(),
      1,
      way,
      () => true,
      usages,
      (...end) => found.push(end),
    );
    expect(found).toEqual([[5, true, 0, 0]]);
    expect(findPaths(graphOf(), 1, 4, way, () => true, usages, 9)).toEqual([]);
  });

  it('says in which usage of the start and of the end it holds only', () => {
    const usages = { usageAt: (link: number, node: number) => (link === 2 && node === 1 ? 7 : link === 5 && node === 5 ? 8 : 0), usagesOf: () => [] };
    const found: unknown[] = [];
    followSteps(
      graphOf(),
      1,
      way,
      () => true,
      usages,
      (...end) => found.push(end),
    );
    expect(found).toEqual([
      [4, true, 7, 0],
      [5, true, 7, 8],
    ]);
  });
});

describe('findPaths', () => {
  it('tells each path by its links, and no more than were asked for', () => {
    expect(findPaths(graphOf(), 0, 4, way, () => true, undefined, 9)).toEqual([
      [0, 3],
      [1, 4],
    ]);
    expect(findPaths(graphOf(), 0, 4, way, () => true, undefined, 1)).toHaveLength(1);
    expect(findPaths(graphOf(), 2, 4, [way[1]!], () => true, undefined, 9)).toEqual([[3]]);
  });
});
