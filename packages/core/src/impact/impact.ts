import type { Scheme } from '../scheme/scheme.js';
import type { Direction, Step, TraceGraph } from '../trace/graph.js';
import { buildReach } from '../trace/reach.js';
import type { UsageEnds } from '../trace/usages.js';
import { IndependentPaths } from './independent-paths.js';

/** Which way a change is followed: to what rests on it, or to what it rests on. */
export type Towards = 'downstream' | 'upstream';

export interface ImpactWish {
  /** Items that change. */
  roots: readonly number[];
  towards: Towards;
  /** Ids of link kinds that are followed; all of them when left out. */
  kinds?: ReadonlySet<string>;
  /** Links at most from a root. */
  most?: number;
  mayEnter: (node: number) => boolean;
  usages?: UsageEnds;
}

export interface Affected {
  node: number;
  /** Links from the nearest root. */
  distance: number;
  /** Nodes and links of a shortest path from a root: `links[i]` leads from `nodes[i]` to `nodes[i + 1]`. */
  nodes: number[];
  links: number[];
  /** Paths from the roots that share no item on the way; null where there was too much to count them exactly. */
  paths: number | null;
}

/** Items up to which independent paths are counted; with more of them none is. */
export const mostCounted = 1500;

/** Steps that lead to what rests on an item, or to what it rests on, by what the scheme says is upstream. */
export function stepsTowards(scheme: Scheme, towards: Towards, kinds?: ReadonlySet<string>): Step[] {
  return scheme.linkKinds.flatMap(({ id, upstream }, kind) => {
    if (kinds && !kinds.has(id)) return [];
    const direction: Direction = (upstream === 'to') === (towards === 'upstream') ? 'out' : 'in';
    return [{ kind, direction }];
  });
}

/**
 * What a change of some items may touch, nearest first, and of those as near what more independent paths lead to first. Paths keep to the use
 * that they came to an item in; paths are counted exactly, whichever uses their links hold in, for up to `mostCounted` items.
 */
export function buildImpact(graph: TraceGraph, scheme: Scheme, { roots, towards, kinds, most, mayEnter, usages }: ImpactWish): Affected[] {
  const steps = stepsTowards(scheme, towards, kinds);
  const reached = buildReach(graph, roots, { steps, mayEnter, ...(most !== undefined && { maxDistance: most }), ...(usages && { usages }) });
  const first = new Map<number, number>();
  reached.forEach(({ node }, at) => {
    if (!first.has(node)) first.set(node, at);
  });
  const isRoot = new Set(roots);
  const affected = [...first].flatMap(([node, at]): Affected[] => {
    if (isRoot.has(node)) return [];
    const nodes: number[] = [];
    const links: number[] = [];
    for (let entry = reached[at]; entry; entry = reached[entry.from]) {
      nodes.unshift(entry.node);
      if (entry.from >= 0) links.unshift(entry.link);
    }
    return [{ node, distance: reached[at]!.distance, nodes, links, paths: null }];
  });
  if (affected.length <= mostCounted) countPaths(graph, steps, roots, [...first.keys()], affected);
  return affected.sort((a, b) => a.distance - b.distance || (b.paths ?? 0) - (a.paths ?? 0));
}

function countPaths(graph: TraceGraph, steps: readonly Step[], roots: readonly number[], nodes: readonly number[], affected: Affected[]): void {
  const place = new Map(nodes.map((node, at) => [node, at]));
  const walks = { out: new Uint8Array(256), in: new Uint8Array(256) };
  for (const { kind, direction } of steps) walks[direction][kind] = 1;
  const from: number[] = [];
  const to: number[] = [];
  for (const [node, at] of place)
    for (const direction of ['out', 'in'] as const)
      graph.forEachLink(node, direction, (link, other) => {
        const next = walks[direction][graph.kind[link]!] ? place.get(other) : undefined;
        if (next === undefined) return;
        from.push(at);
        to.push(next);
      });
  const flow = new IndependentPaths(
    { nodes: nodes.length, from, to },
    [...new Set(roots)].map((root) => place.get(root)!),
  );
  for (const one of affected) one.paths = flow.count(place.get(one.node)!);
}
