import { disallowedLinks } from './disallowed-links.js';
import type { EffectFamily } from './effect.js';
import { emptyRequired, hiddenValues, unfitValues } from './field-values.js';
import { movedRules, movedStates } from './moved-figures.js';
import { namingRecipes } from './recipes.js';
import { renamedOptions } from './renamed-options.js';
import { retiredKinds } from './retired-kinds.js';

/** All that a change of the scheme may do to what is there, in the order in which it is told and done. */
export const effectFamilies: readonly EffectFamily[] = [
  renamedOptions,
  retiredKinds,
  unfitValues,
  hiddenValues,
  emptyRequired,
  disallowedLinks,
  movedRules,
  movedStates,
  namingRecipes,
];
