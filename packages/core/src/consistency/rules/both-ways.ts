import { type ConsistencyRule, forEachLiveLink, kindsWithRoles, type RuleFinding } from '../consistency-rule.js';
import { restingRoles } from './in-a-circle.js';

export const bothWays: ConsistencyRule = {
  id: 'both-ways',
  label: 'Said both ways',
  explains: 'Each of the two is said to rest on the other. One of the links was made the wrong way round.',
  weight: 'wrong',
  find: (ground) => {
    const { graph, items, scheme } = ground;
    const resting = kindsWithRoles(ground, restingRoles);
    const found: RuleFinding[] = [];
    const nodes = Math.max(1, graph.nodes);
    const seen = new Map<number, number>();
    forEachLiveLink(ground, (link, from, to) => {
      const kind = graph.kind[link]!;
      if (!resting[kind] || from === to || items[from]!.withdrawn || items[to]!.withdrawn) return;
      const other = seen.get((kind * nodes + to) * nodes + from);
      seen.set((kind * nodes + from) * nodes + to, link);
      if (other === undefined) return;
      const says = `${scheme.linkKinds[kind]!.phrase} ${items[to]!.reference}, and the other way round too`;
      found.push({
        nodes: [from, to],
        links: [link, other],
        says,
        mendings: [
          { sort: 'removeLink', link },
          { sort: 'removeLink', link: other },
        ],
      });
    });
    return found;
  },
  examples: {
    fires: [
      {
        items: { 'SYS-1': 'requirement', 'SYS-2': 'requirement' },
        links: [
          ['SYS-1', 'derives', 'SYS-2'],
          ['SYS-2', 'derives', 'SYS-1'],
        ],
      },
    ],
    silent: [
      { items: { 'SYS-1': 'requirement', 'SYS-2': 'requirement' }, links: [['SYS-1', 'derives', 'SYS-2']] },
      {
        items: { 'MOD-1': 'component', 'MOD-2': 'component' },
        links: [
          ['MOD-1', 'depends', 'MOD-2'],
          ['MOD-2', 'depends', 'MOD-1'],
        ],
      },
    ],
  },
};
