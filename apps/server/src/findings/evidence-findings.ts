import { counted } from '@coomb/core';
import type { FindingSource, Found } from './finding-source.js';

/** What the latest results speak against, and what they say nothing of any more. */
export const evidenceFindings: FindingSource = {
  find: (state) => {
    const failing: Found[] = [];
    const stale: Found[] = [];
    const states = state.allStates();
    for (const node of state.nodesOfKinds(state.scheme.verification.of.kinds)) {
      const is = states[node];
      if (is !== 'failing' && is !== 'stale') continue;
      const { failed, stale: old } = state.verifying.read(node);
      const says = is === 'failing' ? `${counted(failed, 'test')} of it failed` : `changed after ${counted(old, 'result')} of its tests`;
      (is === 'failing' ? failing : stale).push({ key: `evidence:${is}:${state.items[node]!.id}`, node, other: -1, links: [], says, mendings: [] });
    }
    return [
      {
        id: 'evidence:failing',
        label: 'Fails its tests',
        explains: 'The latest result of a test of it says that it failed, or that the test broke.',
        group: 'evidence',
        weight: 'wrong',
        found: failing,
      },
      {
        id: 'evidence:stale',
        label: 'Stale evidence',
        explains: 'It, a test of it or their link changed after the result: run the test again.',
        group: 'evidence',
        weight: 'wrong',
        found: stale,
      },
    ];
  },
};
