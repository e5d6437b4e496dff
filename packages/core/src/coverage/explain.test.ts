import { describe, expect, it } from 'vitest';
import { toColumns } from '../testing/random.js';
import { TraceGraph } from '../trace/graph.js';
import { buildExplanation } from './explain.js';
import type { CoverageQuestion } from './coverage-question.js';

const link = (from: number, to: number, suspect = false) => ({ from, to, kind: 0, suspect });
const question = (targets: number[], maxSteps: number): CoverageQuestion => ({
  steps: [{ kind: 0, direction: 'out' }],
  maxSteps,
  atLeast: 1,
  subject: Uint8Array.from([1, 0, 0, 0, 0]),
  target: Uint8Array.from({ length: 5 }, (_, node) => (targets.includes(node) ? 1 : 0)),
});

describe('buildExplanation', () => {
  it('shows the path that meets the rule, clean ones before suspect ones', () => {
    const graph = TraceGraph.build(toColumns(5, [link(0, 1, true), link(0, 2), link(2, 3)]));
    const { paths, ends } = buildExplanation(graph, question([1, 3], 2), 0);
    expect(paths.map((path) => [path.suspect, path.nodes.map((entry) => entry.node)])).toEqual([
      [false, [0, 2, 3]],
      [true, [0, 1]],
    ]);
    expect(ends).toEqual([]);
  });

  it('shows where the search ended when nothing was found', () => {
    const graph = TraceGraph.build(toColumns(5, [link(0, 1), link(1, 2), link(2, 3)]));
    const { paths, ends } = buildExplanation(graph, question([3], 2), 0);
    expect(paths).toEqual([]);
    expect(ends.map((entry) => entry.node)).toEqual([2]);
  });

  it('has nothing to show where no link starts', () => {
    const graph = TraceGraph.build(toColumns(5, []));
    expect(buildExplanation(graph, question([3], 2), 0)).toEqual({ paths: [], ends: [] });
  });

  it('shows at most as many paths as asked', () => {
    const graph = TraceGraph.build(toColumns(5, [link(0, 1), link(0, 2), link(0, 3)]));
    expect(buildExplanation(graph, question([1, 2, 3], 1), 0, 0, 2).paths).toHaveLength(2);
  });
});
