import { findKind, isAllowed } from '@coomb/core';
import type { ProjectState } from '../../project-state/project-state.js';
import type { FigureFamily } from './figure-family.js';

const WHICH = {
  kinds: { label: 'Items of retired kinds', explains: 'The kind is in use no more: give the items another, or take the kind back in use.' },
  links: { label: 'Items with links that the scheme does not allow', explains: 'Their kind of link is retired, or may not join items of these kinds.' },
  values: { label: 'Items with values that a field does not take', explains: 'The value is of another type than the field, or none of its choices.' },
  required: { label: 'Items with an empty field that is required', explains: 'The scheme says that items of this kind must have a value there.' },
  open: {
    label: 'Items that are not as the scheme says',
    explains: 'Of a retired kind, with a link or a value that is not allowed, or without a required value.',
  },
} as const;
export const schemeFigureIds = Object.keys(WHICH) as (keyof typeof WHICH)[];

/** `scheme:kinds`, `scheme:links`, `scheme:values`, `scheme:required`, `scheme:open`: what was kept when the scheme changed, or came in against it. */
export const schemeFigures = {
  id: 'scheme',
  describe: (_, [which]) => WHICH[which as keyof typeof WHICH],
  noteOf: (state, node) => {
    const kind = findKind(state.scheme, state.items[node]!.kind);
    const { missing = [], unfit = [] } = state.fieldFindings(node) ?? {};
    const links = findDisallowed(state, node).map((link) => state.scheme.linkKinds[state.graph.kind[link]!]?.phrase ?? '');
    return [
      ...(kind?.retired ? [`${kind.label} is retired`] : []),
      ...(links.length > 0 ? [`link not allowed: ${[...new Set(links)].join(', ')}`] : []),
      ...(unfit.length > 0 ? [`value not taken: ${unfit.join(', ')}`] : []),
      ...(missing.length > 0 ? [`empty: ${missing.join(', ')}`] : []),
    ].join('; ');
  },
  collect: (state, [which]) => {
    const wants = (one: string) => which === one || which === 'open';
    const all = new Set<number>();
    if (wants('kinds')) for (const { id, retired } of state.scheme.kinds) if (retired) for (const node of state.nodesOfKinds([id])) all.add(node);
    if (wants('links')) for (const node of nodesOfDisallowedLinks(state)) all.add(node);
    for (const node of state.nodesWithFieldFindings()) {
      const { missing, unfit } = state.fieldFindings(node)!;
      if ((wants('values') && unfit.length > 0) || (wants('required') && missing.length > 0)) all.add(node);
    }
    return [...all].sort((a, b) => a - b);
  },
} satisfies FigureFamily;

function isFinding(state: ProjectState, link: number): boolean {
  const { graph, items, scheme } = state;
  const [from, to] = [items[graph.from[link]!]!, items[graph.to[link]!]!];
  const kind = scheme.linkKinds[graph.kind[link]!];
  return graph.isAlive(link) && !from.withdrawn && !to.withdrawn && kind !== undefined && !isAllowed(kind, from.kind, to.kind);
}

function findDisallowed(state: ProjectState, node: number): number[] {
  return [...state.graph.findLinks(node, 'out'), ...state.graph.findLinks(node, 'in')].filter((link) => isFinding(state, link));
}

/** Found once for each change: several figures ask. */
const found = new WeakMap<ProjectState, { seq: number; nodes: ReadonlySet<number> }>();

function nodesOfDisallowedLinks(state: ProjectState): ReadonlySet<number> {
  const known = found.get(state);
  if (known?.seq === state.seq) return known.nodes;
  const nodes = new Set<number>();
  for (let link = 0; link < state.graph.links; link++) if (isFinding(state, link)) nodes.add(state.graph.from[link]!).add(state.graph.to[link]!);
  found.set(state, { seq: state.seq, nodes });
  return nodes;
}
