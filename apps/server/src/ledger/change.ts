import type { Entities, Entity } from './values.js';

export type * from './values.js';

/** A value before and after: `before` is null where it is new. Nothing is ever deleted; it is withdrawn. */
export type Change = { [E in Entity]: { entity: E; before: Entities[E] | null; after: Entities[E] } }[Entity];

/** Node of an item that the ledger has still to give its number. */
export const UNNUMBERED = -1;

/** What a row becomes when a change is taken back: its former self, or withdrawn when there was none. */
export function invert(change: Change, current: Change['after']): Change {
  // What the history does not keep, the row's place in the project, stays as it is.
  const back = change.before ?? { withdrawn: true };
  return { entity: change.entity, before: current, after: { ...current, ...back, revision: current.revision + 1 } } as Change;
}
