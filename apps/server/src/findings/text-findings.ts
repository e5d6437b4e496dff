import { sharePercent } from '@coomb/core';
import type { FindingSource, Found } from './finding-source.js';

/** What texts give reason to look at. */
export const textFindings: FindingSource = {
  find: (state, { twins }) => [
    {
      id: 'said-again',
      label: 'Likely twice',
      explains: 'Two items of one kind say nearly the same, and are not linked with each other.',
      group: 'texts',
      weight: 'look',
      found: twins.flatMap(({ a, b, share }): Found[] => {
        if (!state.isPresent(a) || !state.isPresent(b) || areLinked(state, a, b)) return [];
        const [one, other] = [state.items[a]!, state.items[b]!];
        const says = `says nearly what ${one.reference} says: ${sharePercent(share, 1)} of their words are the same`;
        return [{ key: `said-again:${[one.id, other.id].toSorted().join('+')}`, node: b, other: a, links: [], says, mendings: [] }];
      }),
    },
  ],
};

function areLinked({ graph }: Parameters<FindingSource['find']>[0], a: number, b: number): boolean {
  return graph.findLinks(a, 'out').some((link) => graph.to[link] === b) || graph.findLinks(b, 'out').some((link) => graph.to[link] === a);
}
