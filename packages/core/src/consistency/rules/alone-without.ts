import { addToGroup } from '../../group-by.js';
import { phraseAt } from '../../scheme/scheme.js';
import { type ConsistencyRule, forEachLiveLink, kindsWithRoles, type RuleFinding } from '../consistency-rule.js';

/** Siblings that there must be beside the one, all of them linked. */
const LEAST_LINKED = 3;

/** What has a first and a last, or is of use to some only, tells nothing of those that lack it. */
const chains = ['leads', 'types', 'composes', 'depends'] as const;

export const aloneWithout: ConsistencyRule = {
  id: 'alone-without',
  label: 'Likely missing',
  explains: 'Everything of its kind that stands beside it has a link that it has not.',
  weight: 'look',
  find: (ground) => {
    const { items, graph, scheme } = ground;
    const isChain = kindsWithRoles(ground, chains);
    const kinds = scheme.linkKinds.length;
    /** For each item: which kinds of link it has, from where it stands. */
    const has = new Map<number, Set<number>>();
    const note = (node: number, way: number) => {
      const known = has.get(node);
      if (known) known.add(way);
      else has.set(node, new Set([way]));
    };
    forEachLiveLink(ground, (link, from, to) => {
      if (isChain[graph.kind[link]!] || items[from]!.withdrawn || items[to]!.withdrawn) return;
      note(from, graph.kind[link]!);
      note(to, kinds + graph.kind[link]!);
    });
    const groups = new Map<string, number[]>();
    items.forEach(({ kind, heading, withdrawn, parent }, node) => {
      if (!heading && !withdrawn) addToGroup(groups, `${parent} ${kind}`, node);
    });
    const found: RuleFinding[] = [];
    for (const nodes of groups.values()) {
      if (nodes.length <= LEAST_LINKED) continue;
      const counts = new Map<number, number>();
      for (const node of nodes) for (const way of has.get(node) ?? []) counts.set(way, (counts.get(way) ?? 0) + 1);
      for (const [way, count] of counts) {
        if (count !== nodes.length - 1) continue;
        const alone = nodes.find((node) => !has.get(node)?.has(way))!;
        const kind = scheme.linkKinds[way % kinds]!;
        const phrase = phraseAt(kind, way < kinds ? 'from' : 'to');
        found.push({
          nodes: [alone],
          links: [],
          says: `lacks what all ${count} beside it have: “${phrase} …”`,
          mendings: [],
          about: `${kind.id} ${way < kinds ? 'from' : 'to'}`,
        });
      }
    }
    return found;
  },
  examples: {
    fires: [
      {
        items: { 'SYS-1': 'requirement', 'SYS-2': 'requirement', 'SYS-3': 'requirement', 'SYS-4': 'requirement', 'TC-1': 'test' },
        links: [
          ['TC-1', 'verifies', 'SYS-1'],
          ['TC-1', 'verifies', 'SYS-2'],
          ['TC-1', 'verifies', 'SYS-4'],
        ],
      },
    ],
    silent: [
      // Two lack it: that may be meant so.
      {
        items: { 'SYS-1': 'requirement', 'SYS-2': 'requirement', 'SYS-3': 'requirement', 'SYS-4': 'requirement', 'TC-1': 'test' },
        links: [
          ['TC-1', 'verifies', 'SYS-1'],
          ['TC-1', 'verifies', 'SYS-2'],
        ],
      },
      // The one that lacks it stands elsewhere, or is of another kind.
      {
        items: {
          'SYS-1': 'requirement',
          'SYS-2': 'requirement',
          'SYS-3': 'requirement',
          'SYS-4': { role: 'requirement', parent: 'elsewhere' },
          'NEED-1': 'need',
          'TC-1': 'test',
        },
        links: [
          ['TC-1', 'verifies', 'SYS-1'],
          ['TC-1', 'verifies', 'SYS-2'],
          ['TC-1', 'verifies', 'SYS-3'],
        ],
      },
      // The first of a row of steps follows none.
      {
        items: { 'FUN-1': 'function', 'FUN-2': 'function', 'FUN-3': 'function', 'FUN-4': 'function' },
        links: [
          ['FUN-1', 'leads', 'FUN-2'],
          ['FUN-2', 'leads', 'FUN-3'],
          ['FUN-3', 'leads', 'FUN-4'],
        ],
      },
      // Too few stand beside it to tell.
      {
        items: { 'SYS-1': 'requirement', 'SYS-2': 'requirement', 'SYS-3': 'requirement', 'TC-1': 'test' },
        links: [
          ['TC-1', 'verifies', 'SYS-1'],
          ['TC-1', 'verifies', 'SYS-2'],
        ],
      },
    ],
  },
};
