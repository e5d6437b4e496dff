import type { LinkRole } from '../scheme/role-names.js';
import { findKindOfRole, linkKindsOfRole } from '../scheme/roles.js';
import type { Scheme } from '../scheme/scheme.js';
import { TraceGraph } from '../trace/graph.js';
import type { ConsistencyGround, Example } from './consistency-rule.js';

/** The small project of an example, in whatever scheme plays its roles. Throws where none does. */
export function groundOfExample(scheme: Scheme, { items, links, goneUses = [], waiting = [] }: Example): ConsistencyGround {
  const references = Object.keys(items);
  const nodeOf = (reference: string) => {
    const node = references.indexOf(reference);
    if (node < 0) throw new Error(`The example has no ${reference}`);
    return node;
  };
  const kindOf = (role: LinkRole) => {
    const [kind] = linkKindsOfRole(scheme, role);
    if (!kind) throw new Error(`The scheme has no link kind that ${role}`);
    return scheme.linkKinds.indexOf(kind);
  };
  const graph = TraceGraph.build({
    nodes: references.length,
    from: Uint32Array.from(links, ([from]) => nodeOf(from)),
    to: Uint32Array.from(links, ([, , to]) => nodeOf(to)),
    kind: Uint8Array.from(links, ([, kind]) => kindOf(kind)),
  });
  return {
    scheme,
    graph,
    items: references.map((reference) => {
      const item = items[reference]!;
      const { role, withdrawn = false, heading = false, collection = 'c', parent = 'top' } = typeof item === 'string' ? { role: item } : item;
      const kind = findKindOfRole(scheme, role)?.id;
      if (kind === undefined) throw new Error(`The scheme has no kind that is a ${role}`);
      return { kind, withdrawn, heading, collection, parent, reference };
    }),
    usesOf: (link) => (links[link]?.[3]?.use === undefined ? undefined : { from: links[link]![3]!.use!, to: null }),
    isGone: (use) => goneUses.includes(use),
    sayUse: (use) => use,
    waiting: waiting.map(({ item, target }, at) => ({ id: `w${at}`, node: nodeOf(item), phrase: 'is linked with', target })),
    movedFrom: (link, end) => (end === 'from' ? links[link]?.[3]?.movedFrom : undefined),
    nameOfCollection: (collection) => collection,
  };
}
