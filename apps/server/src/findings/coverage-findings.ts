import type { FindingSource, Found } from './finding-source.js';

/** Gaps: items that miss a coverage rule of the scheme. */
export const coverageFindings: FindingSource = {
  find: (state) =>
    state.scheme.rules.map((rule) => {
      const { subject } = state.question(rule);
      const coverage = state.coverage(rule);
      const found: Found[] = [];
      for (let node = 0; node < subject.length; node++) {
        const is = subject[node] ? coverage.stateOf(node) : 'notApplicable';
        if (is !== 'notMet' && is !== 'waived') continue;
        const gap = { key: `gap:${rule.id}:${state.items[node]!.id}`, node, other: -1, links: [], says: `misses “${rule.label}”`, mendings: [] };
        found.push(is === 'waived' ? { ...gap, waivedUnder: rule.id } : gap);
      }
      return { id: `gap:${rule.id}`, label: rule.label, explains: rule.sentence, group: 'coverage', weight: 'wrong', found };
    }),
};
