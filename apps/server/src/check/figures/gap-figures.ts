import { findOpen, describeGaps } from '../findings.js';
import type { FigureFamily } from './figure-family.js';

/** `open`: everything that misses a coverage rule or fails. */
export const gapFigures = {
  id: 'open',
  describe: () => ({ label: 'Open findings', explains: 'Items that miss a coverage rule without a waiver, or whose tests fail.' }),
  noteOf: (state, node) => describeGaps(state, node),
  collect: (state) => findOpen(state),
} satisfies FigureFamily;
