import type { ComparedEntry } from '@coomb/contract';
import { defaultSide, type MergeChoice, type MergeEntry, type Side } from '@coomb/core';

export type Choices = Record<string, MergeChoice>;
export type Sort = ComparedEntry['sort'];

/** What core's rules need to know of an entry as it comes over the line. */
function asMergeEntry(entry: ComparedEntry): MergeEntry {
  return {
    mine: entry.mine ? 0 : -1,
    theirs: entry.theirs ? 0 : -1,
    sort: entry.sort,
    match: undefined,
    fields: entry.fields.map((field) => ({ ...field, base: field.base })),
    linksAdded: entry.linksAdded,
    linksRemoved: entry.linksRemoved,
    place: entry.place ? (entry.place.conflict ? 'conflict' : 'theirs') : undefined,
    conflict: entry.conflict,
  };
}

/** Parts of an entry that can be chosen: its fields that differ, its place, its links, or whether it is there at all. */
export function partsOf(entry: ComparedEntry): string[] {
  if (entry.sort === 'new' || entry.sort === 'removed') return ['presence'];
  const fields = entry.fields.filter((field) => field.verdict === 'theirs' || field.verdict === 'conflict').map((field) => field.field);
  return [
    ...(entry.sort === 'returned' ? ['presence'] : []),
    ...fields,
    ...(entry.place ? ['place'] : []),
    ...(entry.linksAdded.length + entry.linksRemoved.length ? ['links'] : []),
  ];
}

export function sideOf(entry: ComparedEntry, part: string, choices: Choices): Side {
  const choice = choices[entry.id];
  if (typeof choice === 'string') return choice;
  return (
    choice?.[part] ?? (part !== 'presence' && typeof choice === 'object' && choice.presence === 'theirs' ? 'theirs' : defaultSide(asMergeEntry(entry), part))
  );
}

/** `all`, `some` or `none` of an entry's differences are taken. */
export function takenOf(entry: ComparedEntry, choices: Choices): 'all' | 'some' | 'none' {
  const parts = partsOf(entry);
  const taken = parts.filter((part) => sideOf(entry, part, choices) === 'theirs').length;
  return taken === 0 ? 'none' : taken === parts.length ? 'all' : 'some';
}

export function choose(choices: Choices, entry: ComparedEntry, part: string, side: Side): Choices {
  const before = choices[entry.id];
  const parts = typeof before === 'string' ? Object.fromEntries(partsOf(entry).map((one) => [one, before])) : before;
  return { ...choices, [entry.id]: { ...parts, [part]: side } };
}

/** Conflicts that nobody has chosen for yet: they keep what stands here. */
export function countOpen(entries: readonly ComparedEntry[], choices: Choices): number {
  return entries.filter((entry) => entry.conflict && choices[entry.id] === undefined).length;
}
