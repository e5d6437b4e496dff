import { describe, expect, it } from 'vitest';
import { defaultScheme } from '../scheme/starters/needs-to-tests.js';
import { below, seeded } from '../testing/random.js';
import { TraceGraph } from '../trace/graph.js';
import { buildImpact, mostCounted } from './impact.js';
import { IndependentPaths } from './independent-paths.js';

const kind = (id: string) => defaultScheme.linkKinds.findIndex((one) => one.id === id);

/** A graph from lines such as "SYS-1 derives NEED-1". */
function buildGraph(lines: string[]) {
  const ends = lines.map((line) => line.split(' ') as [string, string, string]);
  const names = [...new Set(ends.flatMap(([from, , to]) => [from, to]))];
  const graph = TraceGraph.build({
    nodes: names.length,
    from: Uint32Array.from(ends, ([from]) => names.indexOf(from)),
    to: Uint32Array.from(ends, ([, , to]) => names.indexOf(to)),
    kind: Uint8Array.from(ends, ([, id]) => kind(id)),
  });
  const impact = (roots: string, towards: 'downstream' | 'upstream', more: object = {}) =>
    buildImpact(graph, defaultScheme, { roots: roots.split(' ').map((name) => names.indexOf(name)), towards, mayEnter: () => true, ...more }).map(
      ({ node, distance, nodes, paths }) => `${names[node]} ${distance} ${paths} ${nodes.map((one) => names[one]).join('>')}`,
    );
  return { graph, impact };
}

const weir = [
  'SYS-1 derives NEED-1',
  'SYS-2 derives NEED-1',
  'MOD-1 satisfies SYS-1',
  'MOD-1 satisfies SYS-2',
  'TC-1 verifies SYS-1',
  'MOD-2 depends MOD-1',
  'FUN-1 allocated MOD-1',
];

describe('impact', () => {
  it('goes downstream by what each kind of link says is upstream, nearest first, with a shortest path as the reason', () => {
    const { impact } = buildGraph(weir);
    expect(impact('NEED-1', 'downstream')).toEqual([
      'SYS-1 1 1 NEED-1>SYS-1',
      'SYS-2 1 1 NEED-1>SYS-2',
      'MOD-1 2 2 NEED-1>SYS-1>MOD-1',
      'TC-1 2 1 NEED-1>SYS-1>TC-1',
      'MOD-2 3 1 NEED-1>SYS-1>MOD-1>MOD-2',
    ]);
  });

  it('goes upstream, and from several items at once', () => {
    const { impact } = buildGraph(weir);
    expect(impact('MOD-1 TC-1', 'upstream')).toEqual([
      'SYS-1 1 2 MOD-1>SYS-1',
      'SYS-2 1 1 MOD-1>SYS-2',
      'FUN-1 1 1 MOD-1>FUN-1',
      'NEED-1 2 2 MOD-1>SYS-1>NEED-1',
    ]);
  });

  it('follows chosen kinds only, as far as is asked, and enters only what it may', () => {
    const { impact } = buildGraph(weir);
    expect(impact('NEED-1', 'downstream', { kinds: new Set(['derives', 'verifies']) })).toHaveLength(3);
    expect(impact('NEED-1', 'downstream', { most: 1 })).toHaveLength(2);
    expect(impact('NEED-1', 'downstream', { mayEnter: () => false })).toEqual([]);
  });

  it('counts no path through where it began, nor a second link between the same two', () => {
    const { impact } = buildGraph(['B derives A', 'C derives B', 'C derives A', 'B refines A', 'A derives C']);
    expect(impact('A', 'downstream')).toEqual(['C 1 2 A>C', 'B 1 1 A>B']);
  });

  it('does not count paths among more items than it says', () => {
    const lines = Array.from({ length: mostCounted + 1 }, (_, at) => `R-${at} derives NEED`);
    expect(buildGraph(lines).impact('NEED', 'downstream')[0]).toMatch(/ null /);
    expect(buildGraph(lines.slice(1)).impact('NEED', 'downstream')[0]).toMatch(/ 1 1 /);
  });
});

describe('independent paths', () => {
  it('are as many as the fewest items whose removal cuts all ways that are not direct, by trying all of them', () => {
    const random = seeded(3);
    for (let round = 0; round < 120; round++) {
      const nodes = 3 + below(random, 5);
      const edges = Array.from({ length: below(random, nodes * 3) }, () => [below(random, nodes), below(random, nodes)] as const);
      const [source, target] = [0, nodes - 1];
      const flow = new IndependentPaths({ nodes, from: edges.map(([a]) => a), to: edges.map(([, b]) => b) }, [source]);
      const direct = edges.some(([a, b]) => a === source && b === target) ? 1 : 0;
      const rest = edges.filter(([a, b]) => !(a === source && b === target));
      const cuts = Array.from({ length: 2 ** (nodes - 2) }, (_, mask) => mask).filter((mask) => {
        const isOut = (node: number) => node !== source && node !== target && ((mask >> (node - 1)) & 1) === 1;
        const open = [source];
        for (const node of open) for (const [a, b] of rest) if (a === node && !isOut(b) && !open.includes(b)) open.push(b);
        return !open.includes(target);
      });
      const fewest = Math.min(...cuts.map((mask) => mask.toString(2).replaceAll('0', '').length));
      expect(flow.count(target)).toBe(direct + fewest);
    }
  });
});
