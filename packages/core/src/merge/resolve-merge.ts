import { addToGroup } from '../group-by.js';
import type { MergeEntry, MergeValue } from './merge-versions.js';

export type Side = 'mine' | 'theirs';
/** For a whole entry, or field by field; `place`, `links` and `presence` count as fields. */
export type MergeChoice = Side | Record<string, Side>;

/** What an import does to one item. */
export interface Resolution {
  create: boolean;
  withdraw: boolean;
  restore: boolean;
  /** Fields that take the newer version's value. */
  values: Record<string, MergeValue>;
  place: boolean;
  linksAdded: string[];
  linksRemoved: string[];
}

/** Which side holds where nobody chose: the newer version's, unless both sides changed, or a person withdrew the item. */
export function defaultSide(entry: MergeEntry, field: string): Side {
  if (entry.sort === 'returned') return 'mine';
  if (field === 'presence') return entry.conflict ? 'mine' : 'theirs';
  if (field === 'place') return entry.place === 'conflict' ? 'mine' : 'theirs';
  if (field === 'links') return 'theirs';
  return entry.fields.find((one) => one.field === field)?.verdict === 'theirs' ? 'theirs' : 'mine';
}

/** Turns a compared entry and what a person chose for it into what is done. */
export function resolveEntry(entry: MergeEntry, choice: MergeChoice = {}): Resolution {
  const sideOf = (field: string): Side => (typeof choice === 'string' ? choice : (choice[field] ?? defaultSide(entry, field)));
  const nothing: Resolution = { create: false, withdraw: false, restore: false, values: {}, place: false, linksAdded: [], linksRemoved: [] };
  if (entry.sort === 'new') return sideOf('presence') === 'theirs' ? { ...nothing, create: true, linksAdded: entry.linksAdded } : nothing;
  if (entry.sort === 'removed') return sideOf('presence') === 'theirs' ? { ...nothing, withdraw: true } : nothing;
  const restore = entry.sort === 'returned' && sideOf('presence') === 'theirs';
  if (entry.sort === 'returned' && !restore) return nothing;
  const takes = (field: string) => (restore && typeof choice !== 'string' && choice[field] === undefined ? true : sideOf(field) === 'theirs');
  const values: Record<string, MergeValue> = {};
  for (const { field, theirs, verdict } of entry.fields) if ((verdict === 'theirs' || verdict === 'conflict') && takes(field)) values[field] = theirs;
  const links = takes('links');
  return {
    ...nothing,
    restore,
    values,
    place: entry.place !== undefined && takes('place'),
    linksAdded: links ? entry.linksAdded : [],
    linksRemoved: links ? entry.linksRemoved : [],
  };
}

/**
 * Order of siblings after an import: those that stay keep their order as it is here, each of the `loose` (new, or moved in the newer
 * version) goes behind the one it follows there, or to the front when it follows none.
 */
export function mergeOrder(present: readonly string[], theirs: readonly string[], loose: ReadonlySet<string>): string[] {
  const steady = present.filter((id) => !loose.has(id));
  const known = new Set(steady);
  const behind = new Map<string, string[]>();
  let anchor = FRONT;
  for (const id of theirs) {
    if (!loose.has(id)) {
      if (known.has(id)) anchor = id;
      continue;
    }
    addToGroup(behind, anchor, id);
  }
  return [...(behind.get(FRONT) ?? []), ...steady.flatMap((id) => [id, ...(behind.get(id) ?? [])])];
}

const FRONT = '';

/** Ranks for a new order that leave as many as possible as they are; only changed ones are given. `loose` have no rank yet that counts. */
export function buildRanks(order: readonly string[], rankOf: ReadonlyMap<string, number>, loose: ReadonlySet<string>): Map<string, number> {
  const changed = new Map<string, number>();
  const fixed = order.map((id) => (loose.has(id) ? undefined : rankOf.get(id)));
  for (let at = 0; at < order.length; ) {
    if (fixed[at] !== undefined) {
      at++;
      continue;
    }
    let end = at;
    while (end < order.length && fixed[end] === undefined) end++;
    const below = at > 0 ? (fixed[at - 1] ?? changed.get(order[at - 1]!)!) : undefined;
    const above = fixed[end];
    const count = end - at;
    const start = below ?? (above === undefined ? 0 : above - 1024 * (count + 1));
    const step = above === undefined ? 1024 : (above - start) / (count + 1);
    if (!(step > 1e-6)) return new Map(order.map((id, index) => [id, (index + 1) * 1024]));
    for (let i = 0; i < count; i++) changed.set(order[at + i]!, start + step * (i + 1));
    at = end;
  }
  return changed;
}
