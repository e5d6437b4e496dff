import { hasRole, linkKindsOfRole, type Scheme, type TraceGraph } from '@coomb/core';
import type { LightItem } from './light-item.js';

export interface WholesGround {
  scheme: Scheme;
  items: readonly LightItem[];
  nodeOf: ReadonlyMap<string, number>;
  graph: TraceGraph;
}

/**
 * What an item is used in directly: what it stands below, unless that is a section; what composes it; and the parts that are uses of it, which
 * themselves stand in something.
 */
export function findWholes({ scheme, items, nodeOf, graph }: WholesGround, node: number): number[] {
  const own = items[node];
  if (!own || own.withdrawn) return [];
  const wholes = new Set<number>();
  const enter = (other: number) => {
    const item = items[other]!;
    if (!item.withdrawn && !item.heading && !hasRole(scheme, item.kind, 'package')) wholes.add(other);
  };
  const parent = own.parentId === null ? undefined : nodeOf.get(own.parentId);
  if (parent !== undefined) enter(parent);
  for (const role of ['composes', 'types'] as const)
    for (const kind of linkKindsOfRole(scheme, role)) for (const link of graph.findLinks(node, 'in', scheme.linkKinds.indexOf(kind))) enter(graph.from[link]!);
  return [...wholes];
}
