import { type ConsistencyRule, forEachLiveLink, type Mending } from '../consistency-rule.js';

export const endWithdrawn: ConsistencyRule = {
  id: 'end-withdrawn',
  label: 'Ends at what is withdrawn',
  explains: 'The link is still there, and what stands at one of its ends is not: whoever relies on it relies on nothing.',
  weight: 'wrong',
  find: (ground) => {
    const { items } = ground;
    const found: ReturnType<ConsistencyRule['find']> = [];
    forEachLiveLink(ground, (link, from, to) => {
      const gone = [from, to].filter((node) => items[node]!.withdrawn);
      if (gone.length === 0) return;
      const stays = items[from]!.withdrawn ? to : from;
      const mendings: Mending[] = [{ sort: 'removeLink', link }, ...gone.map((node): Mending => ({ sort: 'restoreItem', node }))];
      const phrase = ground.scheme.linkKinds[ground.graph.kind[link]!]!;
      const says =
        gone.length === 2 ? 'both ends are withdrawn' : `${stays === from ? phrase.phrase : phrase.reverse} ${items[gone[0]!]!.reference}, which is withdrawn`;
      found.push({ nodes: [stays, stays === from ? to : from], links: [link], says, mendings });
    });
    return found;
  },
  examples: {
    fires: [
      { items: { 'SYS-1': { role: 'requirement', withdrawn: true }, 'TC-1': 'test' }, links: [['TC-1', 'verifies', 'SYS-1']] },
      { items: { 'NEED-1': { role: 'need', withdrawn: true }, 'SYS-1': 'requirement' }, links: [['SYS-1', 'derives', 'NEED-1']] },
    ],
    silent: [
      { items: { 'SYS-1': 'requirement', 'TC-1': 'test' }, links: [['TC-1', 'verifies', 'SYS-1']] },
      { items: { 'SYS-1': { role: 'requirement', withdrawn: true }, 'TC-1': 'test' }, links: [] },
    ],
  },
};
