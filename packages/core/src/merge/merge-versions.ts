import { addToGroup } from '../group-by.js';
import type { MatchNode } from './match-node.js';
import { type Match, matchStepwise } from './match-versions.js';
import { finish, type Stepwise } from '../steps/stepwise.js';
import { findSteady } from './longest-order.js';

export type MergeValue = string | number | boolean | null | string[];

/** An item as it is exchanged: values by field, and its links by kind and target. */
export interface Exchanged {
  values: Record<string, MergeValue>;
  /** `linkKind direction target`, each once. */
  links: string[];
}

/** What was last exchanged of an item, with its place then. */
export interface ExchangeBase extends Exchanged {
  /** Id of the parent then, or null at the top. */
  parent: string | null;
  /** Place among its siblings then; only the order of these numbers counts. */
  order: number;
}

/** An item of the project that came from the source. In outline order; parents before children. */
export interface MergeMine extends MatchNode, Exchanged {
  id: string;
  parentId: string | null;
  withdrawn: boolean;
  /** Missing for items that were made here. */
  base: ExchangeBase | null;
  /** Whether a link stands here already, wherever it came from: it is not news. */
  hasLink?: (link: string) => boolean;
}

/** An item of the newer version, in its order. */
export type MergeTheirs = MatchNode & Exchanged;

export type MergeVerdict = 'theirs' | 'mine' | 'both' | 'conflict';

export interface MergeField {
  field: string;
  base: MergeValue | undefined;
  mine: MergeValue;
  theirs: MergeValue;
  /** `theirs`: changed there only; `mine`: here only; `both`: to the same; `conflict`: to different values. */
  verdict: MergeVerdict;
}

export type MergeSort = 'new' | 'changed' | 'moved' | 'removed' | 'returned' | 'same';

export interface MergeEntry {
  /** Index into mine, or -1 for what is new. */
  mine: number;
  /** Index into theirs, or -1 for what is removed. */
  theirs: number;
  sort: MergeSort;
  match: Match | undefined;
  /** Fields that differ from what was last exchanged, on either side. */
  fields: MergeField[];
  /** Links that the newer version adds, and those that it no longer has. */
  linksAdded: string[];
  linksRemoved: string[];
  /** Set when the newer version has it elsewhere; a conflict when it was moved here too. */
  place: 'theirs' | 'conflict' | undefined;
  /** A person must choose: a field or place was changed on both sides, or what was removed there was changed here. */
  conflict: boolean;
}

export interface Merge {
  entries: MergeEntry[];
  counts: Record<MergeSort, number> & { conflicts: number };
}

/**
 * Three-way comparison of a newer version with what came from the source before and with what stands here now (domain.md, Merge).
 * Entries come in the order of the newer version, what it lacks at the end. Nothing is decided here but what only one side changed.
 * `settle` may replace values of the newer version by what they stand for, once it is known which item it is of.
 */
export function mergeVersions(
  mine: readonly MergeMine[],
  theirs: readonly MergeTheirs[],
  chosen?: ReadonlyMap<number, number>,
  settle?: (their: MergeTheirs, own: MergeMine) => void,
): Merge {
  return finish(mergeStepwise(mine, theirs, chosen, settle));
}

/** As `mergeVersions`, item by item. */
export function* mergeStepwise(
  mine: readonly MergeMine[],
  theirs: readonly MergeTheirs[],
  chosen?: ReadonlyMap<number, number>,
  settle?: (their: MergeTheirs, own: MergeMine) => void,
): Stepwise<Merge> {
  const matches = yield* matchStepwise(mine, theirs, chosen);
  for (const [index, match] of settle ? matches.entries() : []) {
    if (match) settle!(theirs[index]!, mine[match.mine]!);
    yield;
  }
  const idOf = matches.map((match, index) => (match ? mine[match.mine]!.id : `new ${index}`));
  const parentOf = (index: number) => (theirs[index]!.parent < 0 ? null : idOf[theirs[index]!.parent]!);
  const movedThere = findMovedThere(mine, theirs, matches, parentOf);
  const movedHere = findMovedHere(mine);
  const found = new Uint8Array(mine.length);
  const entryOf = (their: MergeTheirs, index: number): MergeEntry => {
    const match = matches[index];
    if (!match)
      return { mine: -1, theirs: index, sort: 'new', match, fields: [], linksAdded: their.links, linksRemoved: [], place: undefined, conflict: false };
    found[match.mine] = 1;
    return compare(mine[match.mine]!, their, index, match, movedThere[index]!, movedHere[match.mine]!, parentOf(index));
  };
  const entries: MergeEntry[] = [];
  for (const [index, their] of theirs.entries()) {
    entries.push(entryOf(their, index));
    yield;
  }
  mine.forEach((own, index) => {
    if (found[index] || own.base === null || own.withdrawn) return;
    const fields = compareFields(own, own.base, own.base).filter((field) => field.verdict === 'mine');
    entries.push({
      mine: index,
      theirs: -1,
      sort: 'removed',
      match: undefined,
      fields,
      linksAdded: [],
      linksRemoved: own.base.links,
      place: undefined,
      conflict: fields.length > 0,
    });
  });
  const counts = { new: 0, changed: 0, moved: 0, removed: 0, returned: 0, same: 0, conflicts: 0 };
  for (const entry of entries) {
    counts[entry.sort]++;
    if (entry.conflict) counts.conflicts++;
  }
  return { entries, counts };
}

function compare(own: MergeMine, their: MergeTheirs, theirs: number, match: Match, movedThere: boolean, movedHere: boolean, parent: string | null): MergeEntry {
  const { base } = own;
  const fields = compareFields(own, their, base);
  const linksAdded = missingFrom(their.links, base?.links ?? own.links).filter((link) => !own.hasLink?.(link));
  const linksRemoved = missingFrom(base?.links ?? [], their.links);
  const place = !movedThere ? undefined : movedHere && parent !== own.parentId ? 'conflict' : 'theirs';
  const changed = fields.some((field) => field.verdict === 'theirs' || field.verdict === 'conflict') || linksAdded.length + linksRemoved.length > 0;
  const returned = own.withdrawn && (changed || base === null);
  const conflict = place === 'conflict' || returned || fields.some((field) => field.verdict === 'conflict');
  const sort = returned ? 'returned' : own.withdrawn ? 'same' : changed ? 'changed' : place ? 'moved' : 'same';
  return { mine: match.mine, theirs, sort, match, fields, linksAdded, linksRemoved, place: own.withdrawn ? undefined : place, conflict };
}

/** Fields that differ from the base on either side; without a base, those that differ between the sides. */
function compareFields(own: Exchanged, their: Exchanged, base: Exchanged | null): MergeField[] {
  const fields: MergeField[] = [];
  const look = (field: string) => {
    const mine = own.values[field] ?? null;
    const theirs = their.values[field] ?? null;
    const before = base ? (base.values[field] ?? null) : undefined;
    if (mine === theirs && theirs === before) return;
    const mineChanged = before === undefined || !isSame(mine, before);
    const theirsChanged = before === undefined || !isSame(theirs, before);
    if (isSame(mine, theirs)) {
      if (before !== undefined && mineChanged) fields.push({ field, base: before, mine, theirs, verdict: 'both' });
    } else fields.push({ field, base: before, mine, theirs, verdict: mineChanged && theirsChanged ? 'conflict' : theirsChanged ? 'theirs' : 'mine' });
  };
  for (const field in own.values) look(field);
  for (const field in their.values) if (!(field in own.values)) look(field);
  return fields;
}

/** Links are few: a look through the list is quicker than a set of them. */
function missingFrom(links: readonly string[], among: readonly string[]): string[] {
  return links.every((link, index) => among[index] === link) ? [] : links.filter((link) => !among.includes(link));
}

export function isSame(a: MergeValue, b: MergeValue): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((one, index) => one === b[index]);
  return (a === null && isBlank(b)) || (b === null && isBlank(a));
}

function isBlank(value: MergeValue): boolean {
  return value === null || value === '' || (Array.isArray(value) && value.length === 0);
}

/** Which of theirs stand elsewhere than when last exchanged: another parent, or out of the order of their siblings. */
function findMovedThere(
  mine: readonly MergeMine[],
  theirs: readonly MergeTheirs[],
  matches: readonly (Match | undefined)[],
  parentOf: (index: number) => string | null,
): boolean[] {
  const moved = new Array<boolean>(theirs.length).fill(false);
  const siblings = new Map<string | null, { index: number; order: number }[]>();
  matches.forEach((match, index) => {
    const base = match && mine[match.mine]!.base;
    if (!base) return;
    const parent = parentOf(index);
    if (parent !== base.parent) moved[index] = true;
    else addToGroup(siblings, parent, { index, order: base.order });
  });
  markMoved(siblings, moved);
  return moved;
}

/** Which of mine were moved here since they were last exchanged. */
function findMovedHere(mine: readonly MergeMine[]): boolean[] {
  const moved = new Array<boolean>(mine.length).fill(false);
  const siblings = new Map<string | null, { index: number; order: number }[]>();
  mine.forEach((own, index) => {
    if (!own.base) return;
    if (own.parentId !== own.base.parent) moved[index] = true;
    else addToGroup(siblings, own.parentId, { index, order: own.base.order });
  });
  markMoved(siblings, moved);
  return moved;
}

function markMoved(siblings: ReadonlyMap<string | null, { index: number; order: number }[]>, moved: boolean[]): void {
  for (const list of siblings.values()) {
    if (list.every((one, at) => at === 0 || list[at - 1]!.order < one.order)) continue;
    const steady = findSteady(list.map((one) => one.order));
    list.forEach((one, at) => {
      if (!steady[at]) moved[one.index] = true;
    });
  }
}
