import { addToGroup } from '../../group-by.js';
import { type ConsistencyRule, forEachLiveLink } from '../consistency-rule.js';

export const twiceTheSame: ConsistencyRule = {
  id: 'twice-the-same',
  label: 'Said twice',
  explains: 'Two links of one kind join the same two items where the same use is meant. Counts go wrong, and removing one leaves the other.',
  weight: 'wrong',
  find: (ground) => {
    const { graph, items, scheme } = ground;
    const byEnds = new Map<number, number[]>();
    const nodes = Math.max(1, graph.nodes);
    forEachLiveLink(ground, (link, from, to) => {
      if (!items[from]!.withdrawn && !items[to]!.withdrawn) addToGroup(byEnds, (graph.kind[link]! * nodes + from) * nodes + to, link);
    });
    const covers = (one: number, other: number) => {
      const [a, b] = [ground.usesOf(one), ground.usesOf(other)];
      const within = (wide: string | null | undefined, narrow: string | null | undefined) => !wide || wide === narrow;
      return within(a?.from, b?.from) && within(a?.to, b?.to);
    };
    const found: ReturnType<ConsistencyRule['find']> = [];
    for (const links of byEnds.values()) {
      if (links.length < 2) continue;
      // The first one that says as much or more stays; each of the others is said twice.
      for (const [at, link] of links.entries()) {
        const first = links.find((other, place) => other !== link && covers(other, link) && (place < at || !covers(link, other)));
        if (first === undefined) continue;
        const [from, to] = [graph.from[link]!, graph.to[link]!];
        const says = `${scheme.linkKinds[graph.kind[link]!]!.phrase} ${items[to]!.reference}, which another link says already`;
        found.push({ nodes: [from, to], links: [link, first], says, mendings: [{ sort: 'removeLink', link }] });
      }
    }
    return found;
  },
  examples: {
    fires: [
      {
        items: { 'SYS-1': 'requirement', 'TC-1': 'test' },
        links: [
          ['TC-1', 'verifies', 'SYS-1'],
          ['TC-1', 'verifies', 'SYS-1'],
        ],
      },
      {
        items: { 'SYS-1': 'requirement', 'MOD-1': 'component' },
        links: [
          ['MOD-1', 'satisfies', 'SYS-1', { use: 'weir' }],
          ['MOD-1', 'satisfies', 'SYS-1'],
        ],
      },
    ],
    silent: [
      {
        items: { 'SYS-1': 'requirement', 'MOD-1': 'function' },
        links: [
          ['MOD-1', 'satisfies', 'SYS-1'],
          ['MOD-1', 'refines', 'SYS-1'],
        ],
      },
      {
        items: { 'SYS-1': 'requirement', 'MOD-1': 'component' },
        links: [
          ['MOD-1', 'satisfies', 'SYS-1', { use: 'weir' }],
          ['MOD-1', 'satisfies', 'SYS-1', { use: 'lock' }],
        ],
      },
    ],
  },
};
