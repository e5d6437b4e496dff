import { addToGroup, type CompositionGround, hasRole, linkKindsOfRole } from '@coomb/core';
import type { ProjectState } from '../project-state/project-state.js';

export type UseGround = CompositionGround & { isUsed: (node: number) => boolean };

const NOTHING: readonly number[] = [];

/** What a project says of its composition: what stands in what, and which part is a use of what. */
export function buildGround(state: ProjectState): UseGround {
  const { items, nodeOf, graph, scheme } = state;
  const parts = new Map<number, number[]>();
  const types = new Map<number, number>();
  const used = new Set<number>();
  const isWhole = (node: number) => {
    const item = items[node]!;
    return !item.withdrawn && !item.heading && !hasRole(scheme, item.kind, 'package') && !hasRole(scheme, item.kind, 'drawing');
  };
  items.forEach(({ parentId }, node) => {
    if (parentId === null || !isWhole(node)) return;
    const parent = nodeOf.get(parentId);
    if (parent !== undefined && isWhole(parent)) {
      addToGroup(parts, parent, node);
      used.add(node);
    }
  });
  const composes = new Set(linkKindsOfRole(scheme, 'composes').map(({ id }) => state.linkKindIndex(id)));
  const typed = new Set(linkKindsOfRole(scheme, 'types').map(({ id }) => state.linkKindIndex(id)));
  for (let link = 0; link < graph.links; link++) {
    if (!graph.isAlive(link)) continue;
    const [kind, from, to] = [graph.kind[link]!, graph.from[link]!, graph.to[link]!];
    if (!isWhole(from) || !isWhole(to)) continue;
    if (composes.has(kind)) addToGroup(parts, from, to);
    else if (typed.has(kind)) types.set(from, to);
    else continue;
    used.add(to);
  }
  for (const list of parts.values()) list.sort((a, b) => items[a]!.rank - items[b]!.rank || a - b);
  return { partsOf: (node) => parts.get(node) ?? NOTHING, typeOf: (node) => types.get(node) ?? -1, isUsed: (node) => used.has(node) };
}
