import type { getRealisation, ReplyOf } from '@coomb/contract';
import type { Scheme } from '@coomb/core';
import type { ProjectState } from '../project-state/project-state.js';

export type RealisedBy = 'next' | 'below' | 'none';

/** Layers that realise one another, from the top: those of tests only show that something holds, and realise nothing. */
export function realisingLayers({ layers, kinds }: Scheme): Scheme['layers'] {
  return layers.filter(({ id }) => kinds.some(({ layer, roles, informative }) => layer === id && !informative && !roles?.includes('test')));
}

/**
 * Of each item of a layer, by node: whether a link leads down from it to the next layer that holds anything, to one further below only, or to none.
 * Items that need no cover are left out.
 */
export function readRealised(state: ProjectState, layer: string): { next: string | null; by: Map<number, RealisedBy> } {
  const { scheme, graph, items } = state;
  const layers = realisingLayers(scheme).map(({ id }) => id);
  const at = layers.indexOf(layer);
  const rankOf = new Map(scheme.kinds.flatMap(({ id, layer: own, informative }) => (informative ? [] : [[id, layers.indexOf(own)] as const])));
  const rankAt = (node: number) => (items[node]!.withdrawn || items[node]!.heading ? -1 : (rankOf.get(items[node]!.kind) ?? -1));
  const filled = new Set(items.map((_, node) => rankAt(node)));
  const next = layers.findIndex((_, rank) => rank > at && filled.has(rank));
  const by = new Map<number, RealisedBy>();
  if (at < 0) return { next: null, by };
  items.forEach((_, node) => {
    if (rankAt(node) !== at) return;
    let found: RealisedBy = 'none';
    const look = (isDown: (upstream: 'from' | 'to') => boolean) => (link: number, other: number) => {
      if (found === 'next' || !isDown(scheme.linkKinds[graph.kind[link]!]!.upstream)) return;
      const rank = rankAt(other);
      if (rank > at) found = rank === next ? 'next' : 'below';
    };
    graph.forEachLink(
      node,
      'out',
      look((upstream) => upstream === 'from'),
    );
    graph.forEachLink(
      node,
      'in',
      look((upstream) => upstream === 'to'),
    );
    by.set(node, found);
  });
  return { next: layers[next] ?? null, by };
}

/** Layer by layer, how much of each (of what stands within, where it is told) is realised by the next, and which collections hold most of what is not. */
export function buildRealisation(state: ProjectState, isWithin: (node: number) => boolean = () => true): ReplyOf<typeof getRealisation> {
  return realisingLayers(state.scheme).map(({ id, label }) => {
    const { next, by: all } = readRealised(state, id);
    const by = [...all].filter(([node]) => isWithin(node));
    const counts = { next: 0, below: 0, none: 0 };
    const gaps = new Map<string, number>();
    for (const [node, one] of by) {
      counts[one]++;
      const { collectionId } = state.items[node]!;
      if (one === 'none') gaps.set(collectionId, (gaps.get(collectionId) ?? 0) + 1);
    }
    const mostGaps = [...gaps].sort((a, b) => b[1] - a[1]).map(([collection, count]) => ({ collection, count }));
    return { layer: id, label, items: by.length, next, byNext: counts.next, below: counts.below, none: counts.none, gaps: mostGaps };
  });
}
