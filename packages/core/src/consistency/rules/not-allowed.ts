import { getKind, isAllowed } from '../../scheme/scheme.js';
import { type ConsistencyRule, forEachLiveLink, type Mending } from '../consistency-rule.js';

export const notAllowed: ConsistencyRule = {
  id: 'not-allowed',
  label: 'Not allowed by the scheme',
  explains: 'The scheme does not let this kind of link join items of these kinds, or the kind is in use no more. Figures do not count on it.',
  weight: 'wrong',
  find: (ground) => {
    const { scheme, graph, items } = ground;
    const label = (node: number) => getKind(scheme, items[node]!.kind).label.toLowerCase();
    const found: ReturnType<ConsistencyRule['find']> = [];
    forEachLiveLink(ground, (link, from, to) => {
      const kind = scheme.linkKinds[graph.kind[link]!]!;
      const [a, b] = [items[from]!, items[to]!];
      if (a.withdrawn || b.withdrawn || isAllowed(kind, a.kind, b.kind)) return;
      const fitting = scheme.linkKinds.filter((one) => isAllowed(one, a.kind, b.kind));
      const mendings: Mending[] = [
        ...(fitting.length === 1 ? [{ sort: 'changeKind', link, linkKind: fitting[0]!.id } as const] : []),
        { sort: 'removeLink', link },
      ];
      const why = kind.retired ? 'the kind is in use no more' : `"${kind.phrase}" does not join ${label(from)} with ${label(to)}`;
      found.push({ nodes: [from, to], links: [link], says: `${kind.phrase} ${b.reference}, but ${why}`, mendings });
    });
    return found;
  },
  examples: {
    fires: [
      { items: { 'NEED-1': 'need', 'TC-1': 'test' }, links: [['NEED-1', 'verifies', 'TC-1']] },
      { items: { 'SYS-1': 'requirement', 'MOD-1': 'package' }, links: [['MOD-1', 'satisfies', 'SYS-1']] },
    ],
    silent: [
      { items: { 'NEED-1': 'need', 'TC-1': 'test' }, links: [['TC-1', 'verifies', 'NEED-1']] },
      // What is withdrawn is told by another rule.
      { items: { 'NEED-1': { role: 'need', withdrawn: true }, 'TC-1': 'test' }, links: [['NEED-1', 'verifies', 'TC-1']] },
    ],
  },
};
