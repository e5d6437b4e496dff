import { type ConsistencyRule, forEachLiveLink, type RuleFinding } from '../consistency-rule.js';

export const useGone: ConsistencyRule = {
  id: 'use-gone',
  label: 'Holds in a use that is no more',
  explains: 'The link holds in one use only, and the parts that led there lead there no more.',
  weight: 'wrong',
  find: (ground) => {
    const found: RuleFinding[] = [];
    forEachLiveLink(ground, (link, from, to) => {
      const uses = ground.usesOf(link);
      const gone = [uses?.from, uses?.to].find((use) => use && ground.isGone(use));
      if (!gone || ground.items[from]!.withdrawn || ground.items[to]!.withdrawn) return;
      const [at, other] = gone === uses?.from ? [from, to] : [to, from];
      const kind = ground.scheme.linkKinds[ground.graph.kind[link]!]!;
      const says = `${at === from ? kind.phrase : kind.reverse} ${ground.items[other]!.reference} only as in ${ground.sayUse(gone)}, which is no more`;
      found.push({
        nodes: [at, other],
        links: [link],
        says,
        mendings: [
          { sort: 'holdEverywhere', link },
          { sort: 'removeLink', link },
        ],
      });
    });
    return found;
  },
  examples: {
    fires: [{ items: { 'SYS-1': 'requirement', 'MOD-1': 'component' }, links: [['MOD-1', 'satisfies', 'SYS-1', { use: 'weir' }]], goneUses: ['weir'] }],
    silent: [
      { items: { 'SYS-1': 'requirement', 'MOD-1': 'component' }, links: [['MOD-1', 'satisfies', 'SYS-1', { use: 'weir' }]] },
      { items: { 'SYS-1': 'requirement', 'MOD-1': 'component' }, links: [['MOD-1', 'satisfies', 'SYS-1']], goneUses: ['weir'] },
    ],
  },
};
