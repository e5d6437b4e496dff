import { describe, expect, it } from 'vitest';
import { below, randomLinks, seeded, toColumns } from '../testing/random.js';
import { type Direction, TraceGraph } from './graph.js';

const build = (nodes: number, pairs: [number, number][]) =>
  TraceGraph.build(
    toColumns(
      nodes,
      pairs.map(([from, to]) => ({ from, to, kind: 0, suspect: false })),
    ),
  );

describe('TraceGraph', () => {
  it('gives the links at a node, each way', () => {
    const graph = build(3, [
      [0, 1],
      [0, 2],
      [1, 2],
    ]);
    expect(graph.findLinks(0, 'out')).toEqual([0, 1]);
    expect(graph.findLinks(2, 'in')).toEqual([1, 2]);
    expect(graph.findLinks(0, 'in')).toEqual([]);
  });

  it('refuses links that end outside the nodes', () => {
    expect(() => build(2, [[0, 2]])).toThrow(RangeError);
    expect(() => build(2, [[0, 1]]).addLink(0, 9, 0)).toThrow('ends outside the 2 nodes');
    expect(() => TraceGraph.build({ nodes: 1, from: new Uint32Array(1), to: new Uint32Array(0), kind: new Uint8Array(1) })).toThrow('differ in length');
  });

  it('takes nodes and links added to an empty graph', () => {
    const graph = build(0, []);
    const a = graph.addNode();
    const b = graph.addNode();
    const link = graph.addLink(a, b, 3, true);
    expect(graph.findLinks(a, 'out', 3)).toEqual([link]);
    expect(graph.findLinks(b, 'in')).toEqual([link]);
    expect(graph.findLinks(a, 'out', 2)).toEqual([]);
    expect(graph.isSuspect(link)).toBe(true);
  });

  it.each([1, 2, 3, 4, 5])('agrees with a plain list after random changes (seed %i)', (seed) => {
    const random = seeded(seed);
    const nodes = 40;
    const links = randomLinks(random, nodes, 60, 4);
    const graph = TraceGraph.build(toColumns(nodes, links));
    const alive = links.map(() => true);
    let count = nodes;
    for (let step = 0; step < 200; step++) {
      const chance = random();
      if (chance < 0.1) count = graph.addNode() + 1;
      else if (chance < 0.5) {
        const link = { from: below(random, count), to: below(random, count), kind: below(random, 4), suspect: random() < 0.3 };
        expect(graph.addLink(link.from, link.to, link.kind, link.suspect)).toBe(links.length);
        links.push(link);
        alive.push(true);
      } else if (chance < 0.8) {
        const link = below(random, links.length);
        graph.removeLink(link);
        alive[link] = false;
      } else {
        const link = below(random, links.length);
        graph.restoreLink(link);
        alive[link] = true;
      }
    }
    for (let node = 0; node < count; node++)
      for (const direction of ['out', 'in'] as Direction[]) {
        const own = direction === 'out' ? 'from' : 'to';
        const expected = links.flatMap((link, index) => (alive[index] && link[own] === node ? [index] : []));
        expect(graph.findLinks(node, direction).sort((a, b) => a - b)).toEqual(expected);
      }
    expect(links.map((_, index) => graph.isSuspect(index))).toEqual(links.map((link) => link.suspect));
  });

  it('tells the other end of each link', () => {
    const graph = build(3, [
      [0, 1],
      [2, 1],
    ]);
    const others: number[] = [];
    graph.forEachLink(1, 'in', (_, other) => others.push(other));
    expect(others).toEqual([0, 2]);
  });
});
