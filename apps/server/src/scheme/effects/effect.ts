import type { SchemePlan } from '../scheme-plan.js';
import type { SchemeWork } from '../scheme-work.js';

/** A row behind the number of an effect: nodes of items, and what there is to say of them. */
export interface EffectRow {
  node: number | null;
  phrase?: string;
  other?: number;
  note?: string;
}

export interface EffectChoice {
  id: string;
  label: string;
}

/** What a change of the scheme would do to what is there. */
export interface Effect {
  id: string;
  says: string;
  rows: readonly EffectRow[];
  /** What may become of it; the first is taken unless another is asked for. None where there is nothing to decide. */
  choices: readonly EffectChoice[];
  /** Whether the first choice is more than leaving things as they are. */
  apply?: (work: SchemeWork, choice: string) => void;
}

/** One sort of effect, in its own file, listed once in `effects/index.ts`. */
export interface EffectFamily {
  id: string;
  find: (plan: SchemePlan) => Promise<Effect[]> | Effect[];
}

export const KEEP = 'keep';
export const REMOVE = 'remove';
/** A choice of something by its key: "change:verifies". */
export const CHANGE = 'change:';
