import { holdsOf, type Kind, prefixOf } from '@coomb/core';
import type { CollectionValue, SetValue } from '../ledger/change.js';
import type { ProjectState } from '../project-state/project-state.js';

/** Letters and digits that a prefix has at most. */
const LONGEST = 10;

/** A new set with an empty collection for each group, called as the group is, each with a prefix of its own. */
export function buildSetOfGroups(
  { id: projectId, contents }: ProjectState,
  newId: () => string,
  { name, titles, kind }: { name: string; titles: readonly string[]; kind: Kind },
): { set: SetValue; collections: CollectionValue[] } {
  const tracked = () => ({ id: newId(), projectId, revision: 1, withdrawn: false });
  const set = { ...tracked(), name, rank: Math.max(-1, ...contents.sets.map(({ rank }) => rank)) + 1 };
  const first = Math.max(-1, ...contents.liveCollections().map(({ rank }) => rank)) + 1;
  const taken = new Set(contents.liveCollections().map(({ prefix }) => prefix.toUpperCase()));
  const collections = titles.map((title, at) => {
    const wanted = prefixOf({ label: title });
    let prefix = wanted;
    for (let number = 2; taken.has(prefix); number++) prefix = `${wanted.slice(0, LONGEST - String(number).length)}${number}`;
    taken.add(prefix);
    return { ...tracked(), name: title.slice(0, 120), holds: holdsOf(kind), prefix, kind: kind.id, rank: first + at, setId: set.id };
  });
  return { set, collections };
}
