import { coverageStates, type CoverageState } from '@coomb/core';
import type { FigureFamily } from './figure-family.js';

const words: Record<CoverageState, string> = {
  met: 'met',
  suspect: 'met only by suspect links',
  waived: 'waived',
  notMet: 'not met',
  notApplicable: 'not applicable',
};

/** `rule:<coverage rule>:<coverage state>`, or `applicable` for all the rule asks about. */
export const ruleFigures = {
  id: 'rule',
  describe: (state, [ruleId, coverage]) => {
    const rule = state.findRule(ruleId ?? '');
    if (rule && coverage === 'applicable') return { label: `${rule.label}: all it applies to`, explains: rule.sentence };
    if (!rule || !coverageStates.includes(coverage as CoverageState)) return undefined;
    return { label: `${rule.label}: ${words[coverage as CoverageState]}`, explains: rule.sentence };
  },
  collect: (state, [ruleId, wanted]) => {
    const rule = state.findRule(ruleId!)!;
    const coverage = state.coverage(rule);
    const { subject } = state.question(rule);
    const found: number[] = [];
    for (let node = 0; node < subject.length; node++) if (subject[node] && (wanted === 'applicable' || coverage.stateOf(node) === wanted)) found.push(node);
    return found;
  },
} satisfies FigureFamily;
