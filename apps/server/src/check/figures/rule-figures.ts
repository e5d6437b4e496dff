import { coverageStates, type CoverageState } from '@coomb/core';
import type { FigureFamily } from './figure-family.js';

const words: Record<CoverageState, string> = {
  met: 'met',
  suspect: 'met only by suspect links',
  waived: 'waived',
  notMet: 'not met',
  notApplicable: 'not applicable',
};

/** `rule:<coverage rule>:<coverage state>` */
export const ruleFigures = {
  id: 'rule',
  describe: (state, [ruleId, coverage]) => {
    const rule = state.findRule(ruleId ?? '');
    if (!rule || !coverageStates.includes(coverage as CoverageState)) return undefined;
    return { label: `${rule.label}: ${words[coverage as CoverageState]}`, explains: rule.sentence };
  },
  collect: (state, [ruleId, wanted]) => {
    const rule = state.findRule(ruleId!)!;
    const coverage = state.coverage(rule);
    const { subject } = state.question(rule);
    return [...subject.keys()].filter((node) => subject[node] && coverage.stateOf(node) === wanted);
  },
} satisfies FigureFamily;
