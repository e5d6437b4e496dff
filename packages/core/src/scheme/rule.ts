import type { Direction } from '../trace/graph.js';

/** Which items: their kinds, and optionally a field that must hold one of some values. */
export interface ItemFilter {
  kinds: string[];
  field?: { id: string; oneOf: string[] };
}

/**
 * Every item of `of` must reach, along these link kinds in these directions, through at most `steps` links,
 * at least `atLeast` different items of `reach`.
 */
export interface CoverageRule {
  id: string;
  label: string;
  /** The rule in one plain sentence, shown beside its figure. */
  sentence: string;
  of: ItemFilter;
  along: { linkKind: string; direction: Direction }[];
  steps: number;
  atLeast: number;
  reach: ItemFilter;
  /** Whether an item that is used in several places must be covered in each. */
  throughUsages?: boolean;
}

export const coverageStates = ['met', 'suspect', 'waived', 'notMet', 'notApplicable'] as const;
/** `suspect` means: met only by suspect links. */
export type CoverageState = (typeof coverageStates)[number];
