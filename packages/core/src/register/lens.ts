import { filterItems } from './build-register.js';
import type { Condition } from './register.js';
import type { RegisterGround } from './shows/show.js';

/** A named selection that everything can be looked at through: what passes its conditions, with items pinned to it and others left out by hand. */
export interface Lens {
  /** Kinds that its conditions are about; all of them where none is named. */
  kinds: string[];
  /** What becomes of items of other kinds. */
  others: 'shown' | 'hidden';
  conditions: Condition[];
  match: 'all' | 'any';
  /** Ids of items that are in it whatever the conditions say, and of those that are not. */
  pinned: string[];
  leftOut: string[];
}

/** 1 for each node that is seen through a lens. A heading is seen with what stands below it. */
export function seenThrough(ground: RegisterGround, lens: Lens, nodeOf: (id: string) => number | undefined): Uint8Array {
  const { items } = ground;
  const kinds = new Set(lens.kinds);
  const asksNothing = lens.conditions.length === 0 && kinds.size === 0;
  // A lens of pinned items alone shows these; one that asks for nothing at all shows everything.
  const passes = asksNothing && lens.pinned.length > 0 ? () => false : filterItems(ground, lens.conditions, lens.match);
  const seen = Uint8Array.from(items, ({ heading, withdrawn, kind }, node) =>
    !heading && !withdrawn && (kinds.size === 0 || kinds.has(kind) ? passes(node) : lens.others === 'shown') ? 1 : 0,
  );
  const set = (ids: readonly string[], value: 0 | 1) => {
    for (const id of ids) {
      const node = nodeOf(id);
      if (node !== undefined && !items[node]!.withdrawn) seen[node] = value;
    }
  };
  set(lens.pinned, 1);
  set(lens.leftOut, 0);
  const own = seen.slice();
  for (let node = 0; node < own.length; node++)
    if (own[node]) for (let at = items[node]!.parent; at >= 0; at = items[at]!.parent) if (items[at]!.heading) seen[at] = 1;
  return seen;
}
