import { describe, expect, it } from 'vitest';
import { randomLinks, seeded, toColumns } from '../testing/random.js';
import { type Step, TraceGraph } from './graph.js';
import { buildReach, findPath } from './reach.js';

/** The obvious way: distances by relaxing every link until nothing moves. */
function slowDistances(nodes: number, links: ReturnType<typeof randomLinks>, root: number, steps: Step[], most: number, cleanOnly: boolean): number[] {
  const distance = new Array<number>(nodes).fill(Number.POSITIVE_INFINITY);
  distance[root] = 0;
  for (let moved = true; moved; ) {
    moved = false;
    for (const link of links) {
      if (cleanOnly && link.suspect) continue;
      for (const { kind, direction } of steps) {
        if (kind !== link.kind) continue;
        const [here, there] = direction === 'out' ? [link.from, link.to] : [link.to, link.from];
        if (distance[here]! + 1 < distance[there]! && distance[here]! < most) {
          distance[there] = distance[here]! + 1;
          moved = true;
        }
      }
    }
  }
  return distance;
}

describe('buildReach', () => {
  it.each([1, 2, 3, 4, 5, 6, 7, 8])('finds the same nodes at the same distance as relaxing every link (seed %i)', (seed) => {
    const random = seeded(seed);
    const nodes = 30;
    const links = randomLinks(random, nodes, 50, 3);
    const graph = TraceGraph.build(toColumns(nodes, links));
    const steps: Step[] = [{ kind: 0, direction: 'out' }, { kind: 1, direction: 'in' }, ...(seed % 2 ? [{ kind: 0, direction: 'in' } as Step] : [])];
    for (const cleanOnly of [false, true])
      for (const maxDistance of [1, 2, 9]) {
        const reached = buildReach(graph, 0, { steps, maxDistance, cleanOnly });
        const slow = slowDistances(nodes, links, 0, steps, maxDistance, cleanOnly);
        expect(new Map(reached.map((entry) => [entry.node, entry.distance]))).toEqual(
          new Map(slow.flatMap((distance, node) => (distance <= maxDistance ? [[node, distance] as [number, number]] : []))),
        );
        expect(reached.map((entry) => entry.distance)).toEqual(reached.map((entry) => entry.distance).sort((a, b) => a - b));
      }
  });

  it('gives a path of real links from the root', () => {
    const graph = TraceGraph.build(
      toColumns(
        4,
        [
          [0, 1],
          [1, 2],
          [2, 3],
          [0, 2],
        ].map(([from, to]) => ({ from: from!, to: to!, kind: 0, suspect: false })),
      ),
    );
    const reached = buildReach(graph, 0, { steps: [{ kind: 0, direction: 'out' }] });
    const path = findPath(reached, 3)!;
    expect(path.map((entry) => entry.node)).toEqual([0, 2, 3]);
    for (const { link, before, node } of path.slice(1)) expect([graph.from[link], graph.to[link]]).toEqual([before, node]);
    expect(findPath(reached, 99)).toBeUndefined();
  });

  it('enters only what it may', () => {
    const graph = TraceGraph.build(
      toColumns(
        3,
        [
          [0, 1],
          [1, 2],
        ].map(([from, to]) => ({ from: from!, to: to!, kind: 0, suspect: false })),
      ),
    );
    expect(buildReach(graph, 0, { steps: [{ kind: 0, direction: 'out' }], mayEnter: (node) => node !== 1 })).toHaveLength(1);
  });

  it('returns from a cycle', () => {
    const graph = TraceGraph.build(
      toColumns(
        2,
        [
          [0, 1],
          [1, 0],
        ].map(([from, to]) => ({ from: from!, to: to!, kind: 0, suspect: false })),
      ),
    );
    expect(buildReach(graph, 0, { steps: [{ kind: 0, direction: 'out' }] }).map((entry) => entry.node)).toEqual([0, 1]);
  });
});
