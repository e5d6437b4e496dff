import { functionsToPlaces } from './functions-to-places.js';
import { needsToTests } from './needs-to-tests.js';
import { processesToTests } from './processes-to-tests.js';
import { softwareLevels } from './software-levels.js';
import type { Starter } from './starter.js';

export { defaultScheme } from './needs-to-tests.js';
export type { Starter, StarterCollection, StarterSection } from './starter.js';

/** Ready schemes, in the order in which they are offered. */
export const starters: readonly Starter[] = [needsToTests, functionsToPlaces, softwareLevels, processesToTests];
