import type { VerificationState } from '@coomb/core';

/**
 * A glyph for each state, as strokes in a square of 24: the same in cells, marks and legends, and told apart without their colour. What is
 * partly verified has begun the stroke that verified ends.
 */
export const stateGlyphs: Record<VerificationState, string> = {
  verified: 'M5.5 12.5l4.5 4.5L18.5 7.5',
  partly: 'M7.5 10.5l6 6',
  stale: 'M7 6.5h10L7 17.5h10z',
  planned: 'M6.5 12h11',
  unplanned: 'M7 12h0M12 12h0M17 12h0',
  failing: 'M7 7l10 10M17 7L7 17',
  waived: 'M7 17L17 7',
  notApplicable: '',
};
