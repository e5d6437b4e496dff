import type { VerificationState } from '@coomb/core';

/** State colours on paper: the light theme's, dark enough to print. */
export const paperColours: Record<VerificationState, string> = {
  verified: '5B7F3A',
  partly: '9DB37C',
  stale: 'B98A2C',
  planned: '7A8CA3',
  unplanned: 'D5CEBF',
  failing: 'A8442F',
  waived: '8D6E97',
  notApplicable: 'E7E2D6',
};

/** Order of states in charts: the good first. */
export const chartOrder: VerificationState[] = ['verified', 'waived', 'partly', 'stale', 'planned', 'unplanned', 'failing'];
