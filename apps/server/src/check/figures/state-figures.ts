import { verificationStates, type VerificationState } from '@coomb/core';
import type { FigureFamily } from './figure-family.js';

export const stateWords: Record<VerificationState, { label: string; explains: string }> = {
  waived: { label: 'Waived', explains: 'Verification is waived by name, with a reason.' },
  failing: { label: 'Failing', explains: 'The latest result of at least one of their tests failed or broke.' },
  stale: { label: 'Stale', explains: 'Their tests passed, but the requirement or a test changed afterwards, or their link is suspect.' },
  partly: { label: 'Partly verified', explains: 'Some of their tests passed, others were skipped or have not run.' },
  verified: { label: 'Verified', explains: 'All of their tests passed, and nothing changed since.' },
  planned: { label: 'Planned', explains: 'They have tests, but no result yet.' },
  unplanned: { label: 'No test', explains: 'No test case verifies them.' },
  notApplicable: { label: 'Not applicable', explains: 'They need no verification.' },
};

/** `state:<verification state>`: requirements in that state. */
export const stateFigures = {
  id: 'state',
  describe: (_, [state]) => (verificationStates.includes(state as VerificationState) ? stateWords[state as VerificationState] : undefined),
  collect: (state, [wanted]) => {
    const kinds = new Set(state.scheme.verification.of.kinds);
    const states = state.allStates();
    return [...states.keys()].filter(
      (node) => states[node] === wanted && kinds.has(state.items[node]!.kind) && state.isPresent(node) && !state.items[node]!.heading,
    );
  },
} satisfies FigureFamily;
