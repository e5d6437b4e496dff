import { benchSort } from './bench.js';
import { colourKeySort } from './colour-key.js';
import { lensSort } from './lens.js';
import { matrixSort } from './matrix.js';
import { registerSort } from './register.js';
import { scopeSort } from './scope.js';
import { structureSort } from './structure.js';
import type { SavedViewSort } from './saved-view-sort.js';

// biome-ignore lint/suspicious/noExplicitAny: a sort whatever it keeps; that is checked against its schema.
export type AnySavedViewSort = SavedViewSort<any>;

/** Every sort of view that can be kept. */
export const savedViewSorts: readonly AnySavedViewSort[] = [benchSort, matrixSort, registerSort, scopeSort, structureSort, lensSort, colourKeySort];

export const savedViewSortOf = (sort: string, among = savedViewSorts): AnySavedViewSort | undefined => among.find((one) => one.sort === sort);

export const savedVersionOf = (sort: AnySavedViewSort): number => sort.upgrades.length + 1;

/** What was kept, in the present form of its sort; undefined where this program does not read it. */
export function readSavedBody(
  stored: { sort: string; version: number; body: Record<string, unknown> },
  among = savedViewSorts,
): Record<string, unknown> | undefined {
  const sort = savedViewSortOf(stored.sort, among);
  if (!sort || stored.version < 1 || stored.version > savedVersionOf(sort)) return undefined;
  const parsed = sort.schema.safeParse(sort.upgrades.slice(stored.version - 1).reduce((body, upgrade) => upgrade(body), stored.body));
  return parsed.success ? parsed.data : undefined;
}
