import { describe, expect, it } from 'vitest';
import { TraceGraph } from '../trace/graph.js';
import { buildReach, findPath } from '../trace/reach.js';
import type { UsageEnds } from '../trace/usages.js';
import type { CoverageQuestion } from './coverage-question.js';
import { buildExplanation } from './explain.js';
import { LiveCoverage } from './live-coverage.js';
import { UsageCoverage } from './usage-coverage.js';

/** Links as [from, to, usage at from, usage at to]. */
type Link = [from: number, to: number, fromUsage?: number, toUsage?: number];

function scene(nodes: number, links: Link[], usages: Record<number, number[]>) {
  const graph = TraceGraph.build({
    nodes,
    from: Uint32Array.from(links, ([from]) => from),
    to: Uint32Array.from(links, ([, to]) => to),
    kind: new Uint8Array(links.length),
  });
  const ends: UsageEnds = {
    usageAt: (link, node) => (links[link]![0] === node ? links[link]![2] : links[link]![3]) ?? 0,
    usagesOf: (node) => usages[node] ?? [],
  };
  const question = (subjects: number[], targets: number[], maxSteps: number): CoverageQuestion => ({
    steps: [{ kind: 0, direction: 'in' }],
    maxSteps,
    atLeast: 1,
    subject: Uint8Array.from({ length: nodes }, (_, node) => Number(subjects.includes(node))),
    target: Uint8Array.from({ length: nodes }, (_, node) => Number(targets.includes(node))),
    usages: ends,
  });
  return { graph, ends, question };
}

describe('coverage in each usage', () => {
  // Requirement-like 0, a drive 1 used at the weir (1) and at the lock (2), tests 2 and 3.
  it('is met where every usage is: by its own link, or one that holds in all', () => {
    const read = (links: Link[]) => {
      const { graph, ends, question } = scene(4, links, { 1: [1, 2] });
      const asked = question([1], [2, 3], 1);
      return new UsageCoverage(graph, asked, new LiveCoverage(graph, asked), ends).stateOf(1);
    };
    expect(read([[2, 1, 0, 1]])).toBe('notMet');
    expect(
      read([
        [2, 1, 0, 1],
        [3, 1, 0, 2],
      ]),
    ).toBe('met');
    expect(read([[2, 1]])).toBe('met');
    expect(read([])).toBe('notMet');
  });

  it('is suspect where a usage is met by suspect links only, and waived where somebody waived the gap', () => {
    const { graph, ends, question } = scene(
      4,
      [
        [2, 1, 0, 1],
        [3, 1, 0, 2],
      ],
      { 1: [1, 2] },
    );
    const asked = { ...question([1], [2, 3], 1), waived: new Uint8Array(4) };
    const coverage = new UsageCoverage(graph, asked, new LiveCoverage(graph, asked), ends);
    graph.setSuspect(1, true);
    expect(coverage.stateOf(1)).toBe('suspect');
    graph.removeLink(1);
    expect(coverage.stateOf(1)).toBe('notMet');
    asked.waived[1] = 1;
    expect(coverage.stateOf(1)).toBe('waived');
  });

  it('asks items without usages as any rule does', () => {
    const { graph, ends, question } = scene(3, [[2, 1]], {});
    const asked = question([1], [2], 1);
    expect(new UsageCoverage(graph, asked, new LiveCoverage(graph, asked), ends).stateOf(1)).toBe('met');
  });
});

describe('paths through an item that is used in several places', () => {
  // 0 ← 1 (used as 1 and as 2) ← 2: the link to 0 holds in usage 1, that from the test in usage 2.
  const through = (first: number, second: number) =>
    scene(
      3,
      [
        [1, 0, first, 0],
        [2, 1, 0, second],
      ],
      { 1: [1, 2] },
    );

  it.each([
    ['in the same usage', 1, 1, 'met'],
    ['from one usage into another', 1, 2, 'notMet'],
    ['where one link holds in all', 0, 2, 'met'],
    ['where the other does', 1, 0, 'met'],
  ])('go on %s', (_, first, second, state) => {
    const { graph, question, ends } = through(first, second);
    const asked = question([0], [2], 2);
    expect(new LiveCoverage(graph, asked).stateOf(0)).toBe(state);
    const reached = buildReach(graph, 0, { steps: asked.steps, usages: ends });
    expect(reached.some(({ node }) => node === 2)).toBe(state === 'met');
    const { paths } = buildExplanation(graph, asked, 0);
    expect(paths.map(({ nodes }) => nodes.map(({ node }) => node))).toEqual(state === 'met' ? [[0, 1, 2]] : []);
  });

  it('are told by the usage that they really take, where an item is reached in several', () => {
    // 0 ← 1 in usage 1 and, over 3, in usage 2; only usage 2 goes on to the test 2.
    const { graph, question, ends } = scene(
      4,
      [
        [1, 0, 1, 0],
        [3, 0],
        [1, 3, 2, 0],
        [2, 1, 0, 2],
      ],
      { 1: [1, 2] },
    );
    const asked = question([0], [2], 3);
    const reached = buildReach(graph, 0, { steps: asked.steps, usages: ends });
    expect(findPath(reached, 2)!.map(({ node, usage }) => [node, usage])).toEqual([
      [0, 0],
      [3, 0],
      [1, 2],
      [2, 0],
    ]);
  });

  it('begin in the usage that is asked about', () => {
    const { graph, question } = scene(3, [[2, 1, 0, 2]], { 1: [1, 2] });
    const asked = question([1], [2], 1);
    expect(buildExplanation(graph, asked, 1, 1).paths).toEqual([]);
    expect(buildExplanation(graph, asked, 1, 2).paths).toHaveLength(1);
    expect(buildExplanation(graph, asked, 1).paths).toHaveLength(1);
  });
});
