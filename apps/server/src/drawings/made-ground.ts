import { addToGroup, type GroundLink, hasRole, type MadeGround, phraseAt } from '@coomb/core';
import { buildGround } from '../composition/use-ground.js';
import type { ProjectState } from '../project-state/project-state.js';

/** A project as drawings of ours see it. */
export function buildMadeGround(state: ProjectState): MadeGround {
  const { items, scheme, graph } = state;
  const nodes = Array.from(state.outline().nodes);
  const children = new Map<number, number[]>();
  const parentOf = (node: number) => {
    const { parentId } = items[node]!;
    return parentId === null ? -1 : (state.nodeOf.get(parentId) ?? -1);
  };
  for (const node of nodes) if (parentOf(node) >= 0) addToGroup(children, parentOf(node), node);
  const collections = state.contents.liveCollections();
  const collectionAt = new Map(collections.map(({ id }, at) => [id, at]));
  const labels = new Map(scheme.kinds.map(({ id, label }) => [id, label.toLowerCase()]));
  const { partsOf, typeOf } = buildGround(state);
  return {
    partsOf,
    typeOf,
    nodes: () => nodes,
    idOf: (node) => items[node]!.id,
    titleOf: (node) => items[node]!.title,
    referenceOf: (node) => items[node]!.reference,
    kindLabelOf: (node) => (items[node]!.heading ? 'section' : (labels.get(items[node]!.kind) ?? '')),
    hasRole: (node, role) => !items[node]!.heading && hasRole(scheme, items[node]!.kind, role),
    isHeading: (node) => items[node]!.heading,
    parentOf,
    childrenOf: (node) => children.get(node) ?? [],
    collectionOf: (node) => collectionAt.get(items[node]!.collectionId) ?? -1,
    collections: collections.map(({ id, name }) => ({ id, name })),
    linksOf: (node) => (['out', 'in'] as const).flatMap((direction) => readLinks(state, graph.findLinks(node, direction), direction)),
  };
}

function readLinks(state: ProjectState, links: readonly number[], direction: 'out' | 'in'): GroundLink[] {
  const { graph, scheme } = state;
  return links.flatMap((link) => {
    const kind = scheme.linkKinds[graph.kind[link]!];
    const other = direction === 'out' ? graph.to[link]! : graph.from[link]!;
    if (!kind || kind.role === 'types' || kind.role === 'composes' || !state.isPresent(other)) return [];
    return [{ link, other, phrase: phraseAt(kind, 'from'), out: direction === 'out', suspect: graph.isSuspect(link) }];
  });
}
