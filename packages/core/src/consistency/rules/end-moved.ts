import { type ConsistencyRule, forEachLiveLink, type RuleFinding } from '../consistency-rule.js';

export const endMoved: ConsistencyRule = {
  id: 'end-moved',
  label: 'An end moved to another collection',
  explains: 'Since the link was last confirmed, one of its ends moved. Whoever confirms says that it holds there, too.',
  weight: 'look',
  find: (ground) => {
    const found: RuleFinding[] = [];
    forEachLiveLink(ground, (link, from, to) => {
      if (ground.items[from]!.withdrawn || ground.items[to]!.withdrawn) return;
      const [byFrom, byTo] = [ground.movedFrom(link, 'from'), ground.movedFrom(link, 'to')];
      const left = byFrom ?? byTo;
      if (left === undefined) return;
      const [at, other] = byFrom === undefined ? [to, from] : [from, to];
      const kind = ground.scheme.linkKinds[ground.graph.kind[link]!]!;
      const names = [left, ground.items[at]!.collection].map(ground.nameOfCollection);
      const says = `moved from ${names[0]} to ${names[1]}; ${at === from ? kind.phrase : kind.reverse} ${ground.items[other]!.reference}`;
      found.push({
        nodes: [at, other],
        links: [link],
        says,
        mendings: [
          { sort: 'confirmLink', link },
          { sort: 'removeLink', link },
        ],
      });
    });
    return found;
  },
  examples: {
    fires: [{ items: { 'SYS-1': 'requirement', 'TC-1': 'test' }, links: [['TC-1', 'verifies', 'SYS-1', { movedFrom: 'old tests' }]] }],
    silent: [{ items: { 'SYS-1': 'requirement', 'TC-1': 'test' }, links: [['TC-1', 'verifies', 'SYS-1']] }],
  },
};
