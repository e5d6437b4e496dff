import type * as schema from '../database/schema.js';

export type ItemRow = typeof schema.items.$inferSelect;
export type LinkRow = typeof schema.links.$inferSelect;
export type CollectionRow = typeof schema.collections.$inferSelect;
export type SourceRow = typeof schema.sources.$inferSelect;
export type DrawingRow = typeof schema.drawings.$inferSelect;
export type RunRow = typeof schema.runs.$inferSelect;
export type WaiverRow = typeof schema.waivers.$inferSelect;
export type RecipeRow = typeof schema.recipes.$inferSelect;
export type FieldRow = typeof schema.fields.$inferSelect;
export type ClippingRow = typeof schema.clippings.$inferSelect;

/** Rows that can be undone, by what they are. */
export interface Entities {
  collection: CollectionRow;
  source: SourceRow;
  item: ItemRow;
  link: LinkRow;
  drawing: DrawingRow;
  run: RunRow;
  waiver: WaiverRow;
  recipe: RecipeRow;
  clipping: ClippingRow;
  field: FieldRow;
}
export type Entity = keyof Entities;

/** One row before and after: `before` is null where the row is new. Nothing is ever deleted; it is withdrawn. */
export type Change = { [E in Entity]: { entity: E; before: Entities[E] | null; after: Entities[E] } }[Entity];

/** What a row becomes when a change is taken back: its former self, or withdrawn when there was none. */
export function invert(change: Change, current: Change['after']): Change {
  const back = change.before ?? { ...current, withdrawn: true };
  return { entity: change.entity, before: current, after: { ...back, revision: current.revision + 1 } } as Change;
}

/** Whether a row still holds what a change left, revision counts aside. */
export function isAsLeft(change: Change, current: Change['after']): boolean {
  return canonical(change.after) === canonical(current);
}

/** The database writes times its own way, so times are compared as moments; columns added since count as the nothing they hold. */
function canonical(row: object): string {
  return JSON.stringify(row, (key, value: unknown) => {
    if (value === null) return undefined;
    if (key === 'revision' || key === 'changedAt' || key === 'changedBy') return undefined;
    if ((key === 'at' || key.endsWith('At')) && typeof value === 'string') return new Date(value).getTime();
    if (value && typeof value === 'object' && !Array.isArray(value)) return Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)));
    return value;
  });
}
