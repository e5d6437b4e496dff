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

/** States that are not settled: neither verified nor waived. */
const settled = new Set<VerificationState>(['verified', 'waived', 'notApplicable']);

const whole: Record<string, { label: string; explains: string; has: (state: VerificationState) => boolean }> = {
  all: { label: 'Needs and requirements', explains: 'Everything that needs verification.', has: (state) => state !== 'notApplicable' },
  open: {
    label: 'Not verified yet',
    explains: 'Needs and requirements that are neither verified by fresh results nor waived.',
    has: (state) => !settled.has(state),
  },
};

/** `state:<verification state>`: requirements in that state; `state:all` and `state:open` take several together. */
export const stateFigures = {
  id: 'state',
  describe: (_, [state]) =>
    whole[state ?? ''] ?? (verificationStates.includes(state as VerificationState) ? stateWords[state as VerificationState] : undefined),
  collect: (state, [wanted]) => {
    const has = whole[wanted!]?.has ?? ((one: VerificationState) => one === wanted);
    const states = state.allStates();
    return state.nodesOfKinds(state.scheme.verification.of.kinds).filter((node) => has(states[node]!));
  },
} satisfies FigureFamily;
