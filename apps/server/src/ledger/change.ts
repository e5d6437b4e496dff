import type { ReportBody } from '@coomb/contract';
import type * as schema from '../database/schema.js';

export type ItemRow = typeof schema.items.$inferSelect;
export type LinkRow = typeof schema.links.$inferSelect;
export type CollectionRow = typeof schema.collections.$inferSelect;
export type SourceRow = typeof schema.sources.$inferSelect;
export type DrawingRow = typeof schema.drawings.$inferSelect;
export type RunRow = typeof schema.runs.$inferSelect;
export type WaiverRow = typeof schema.waivers.$inferSelect;
export type RecipeRow = typeof schema.recipes.$inferSelect;
export type SchemePartRow = typeof schema.schemeParts.$inferSelect;
export type UsageRow = typeof schema.usages.$inferSelect;
export type SetRow = typeof schema.sets.$inferSelect;
export type ProjectRow = typeof schema.projects.$inferSelect;
export type BaselineRow = typeof schema.baselines.$inferSelect;
export type ReportRow = Omit<typeof schema.reports.$inferSelect, 'body'> & { body: ReportBody };
export type ClippingRow = typeof schema.clippings.$inferSelect;

/** Rows that can be undone, by what they are. */
export interface Entities {
  project: ProjectRow;
  collection: CollectionRow;
  source: SourceRow;
  item: ItemRow;
  link: LinkRow;
  drawing: DrawingRow;
  run: RunRow;
  waiver: WaiverRow;
  recipe: RecipeRow;
  clipping: ClippingRow;
  schemePart: SchemePartRow;
  set: SetRow;
  usage: UsageRow;
  report: ReportRow;
  baseline: BaselineRow;
}
export type Entity = keyof Entities;

/** One row before and after: `before` is null where the row is new. Nothing is ever deleted; it is withdrawn. */
export type Change = { [E in Entity]: { entity: E; before: Entities[E] | null; after: Entities[E] } }[Entity];

/** Node of an item that the ledger has still to give its number. */
export const UNNUMBERED = -1;

/** What a row becomes when a change is taken back: its former self, or withdrawn when there was none. */
export function invert(change: Change, current: Change['after']): Change {
  // What the history does not keep, the row's place in the project, stays as it is.
  const back = change.before ?? { withdrawn: true };
  return { entity: change.entity, before: current, after: { ...current, ...back, revision: current.revision + 1 } } as Change;
}
