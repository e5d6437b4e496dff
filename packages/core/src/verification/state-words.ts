import type { VerificationState } from './state.js';

/** What each verification state is called, and what it says of one requirement and of several. */
export const stateWords: Record<VerificationState, { label: string; ofOne: string; ofMany: string }> = {
  waived: { label: 'Waived', ofOne: 'Verification is waived by name, with a reason.', ofMany: 'Verification is waived by name, with a reason.' },
  failing: {
    label: 'Failing',
    ofOne: 'The latest result of at least one test failed or broke.',
    ofMany: 'The latest result of at least one of their tests failed or broke.',
  },
  stale: {
    label: 'Stale',
    ofOne: 'Tests passed, but the requirement or a test changed afterwards, or their link is suspect.',
    ofMany: 'Their tests passed, but the requirement or a test changed afterwards, or their link is suspect.',
  },
  partly: {
    label: 'Partly verified',
    ofOne: 'Some tests passed, others were skipped or have not run.',
    ofMany: 'Some of their tests passed, others were skipped or have not run.',
  },
  verified: {
    label: 'Verified',
    ofOne: 'All of its tests passed, and nothing changed since.',
    ofMany: 'All of their tests passed, and nothing changed since.',
  },
  planned: { label: 'Planned', ofOne: 'There are tests, but no result yet.', ofMany: 'They have tests, but no result yet.' },
  unplanned: { label: 'No test', ofOne: 'No test case verifies it.', ofMany: 'No test case verifies them.' },
  notApplicable: { label: 'Not applicable', ofOne: 'Needs no verification.', ofMany: 'They need no verification.' },
};
