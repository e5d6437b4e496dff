import {
  buildTitle,
  compareSchemes,
  escapeHtml,
  findKindOfRole,
  assembleScheme,
  type SchemeEntry,
  type SchemePart,
  type Starter,
  type StarterCollection,
  takeApart,
  withWhatTheyName,
} from '@coomb/core';
import { type Change, type CollectionValue, type ItemValue, UNNUMBERED } from '../ledger/change.js';
import type { ProjectState } from '../project-state/project-state.js';
import { toPart } from '../project-state/scheme-parts.js';

/** What a set is made for. */
export interface SetContext {
  state: Pick<ProjectState, 'id' | 'seq' | 'contents' | 'schemeNow' | 'byReference'>;
  person: string;
  now: string;
  newId: () => string;
}

export interface SetPlan {
  /** Parts that the scheme lacks for it, with keys that are free there. */
  parts: SchemeEntry[];
  collections: { wanted: StarterCollection; kind: string; name: string; prefix: string; shared: CollectionValue | null }[];
  /** Kind of the notes that guide; nothing where the scheme has none that needs no coverage. */
  noteKind: string | undefined;
}

/** What a starter brings to a project: kinds that are there by key or name are used, shared collections that hold its kinds are used as they are. */
export function planSet({ state }: Pick<SetContext, 'state'>, starter: Starter, { name, initials }: { name: string; initials: string }): SetPlan {
  const own: SchemePart[] = state.schemeNow.parts().map(toPart);
  const entries = compareSchemes(own, takeApart(starter.scheme));
  const keyOf = new Map(starter.scheme.kinds.map((kind, index) => [kind.id, entries.filter((entry) => entry.sort === 'kind')[index]!.key]));
  const wanted = new Set(starter.collections.map((collection) => keyOf.get(collection.kind)!));
  const isNew = (entry: SchemeEntry) => entry.state === 'new' || entry.ours?.retired === true;
  const missing = entries.filter((entry) => isNew(entry) && entry.sort === 'kind' && wanted.has(entry.key));
  // Where a kind is lacking it comes with all that the starter says of it: a scheme of other words is not half taken over.
  const parts =
    missing.length === 0
      ? []
      : withWhatTheyName(
          entries.filter((entry) => isNew(entry) && entry.sort !== 'verification'),
          entries,
        ).filter(isNew);
  const scheme = assembleScheme([...own, ...parts.map((entry) => entry.theirs)]);
  const note = findKindOfRole(scheme, 'information');
  return {
    parts,
    noteKind: note?.informative ? note.id : undefined,
    collections: starter.collections.map((collection) => {
      const kind = keyOf.get(collection.kind)!;
      const shared = collection.shared ? (state.contents.liveCollections().find((one) => one.kind === kind) ?? null) : null;
      return {
        ...{ wanted: collection, kind, shared },
        name: shared?.name ?? (name && !collection.shared ? `${name}: ${collection.name}` : collection.name),
        prefix: shared?.prefix ?? `${collection.shared ? '' : initials.toUpperCase()}${collection.prefix}`.slice(0, 10),
      };
    }),
  };
}

/** The rows of a set's collections with their first outline: sections, and in each a note that says what belongs there. */
export function buildCollections(context: SetContext, plan: SetPlan, setId: string | null): Change[] {
  const { state, newId } = context;
  const changes: Change[] = [];
  const taken = new Set<string>();
  const firstRank = Math.max(-1, ...state.contents.liveCollections().map((one) => one.rank)) + 1;
  for (const [index, { wanted, kind, name, prefix, shared }] of plan.collections.entries()) {
    if (shared) continue;
    const tracked = { id: newId(), projectId: state.id, revision: 1, withdrawn: false };
    const row: CollectionValue = { ...tracked, name, prefix, kind, holds: wanted.holds, rank: firstRank + index, setId: wanted.shared ? null : setId };
    changes.push({ entity: 'collection', before: null, after: row });
    for (const [at, { heading, note }] of wanted.outline.entries()) {
      const section = buildItem(context, row, { kind, title: heading, html: '', heading: true, parentId: null, rank: at, reference: nameSection(at) });
      changes.push({ entity: 'item', before: null, after: section });
      if (plan.noteKind !== undefined) {
        const words = { kind: plan.noteKind, title: buildTitle(note), html: `<p>${escapeHtml(note)}</p>`, heading: false };
        changes.push({
          entity: 'item',
          before: null,
          after: buildItem(context, row, { ...words, parentId: section.id, rank: 0, reference: `${nameSection(at)}1` }),
        });
      }
    }
  }
  return changes;

  function buildItem(
    { person, now }: SetContext,
    { id: collectionId, prefix }: CollectionValue,
    words: Pick<ItemValue, 'kind' | 'title' | 'html' | 'heading' | 'parentId' | 'rank'> & { reference: string },
  ): ItemValue {
    return {
      ...{ id: newId(), projectId: state.id, revision: 1, withdrawn: false, node: UNNUMBERED, collectionId, fields: {}, details: [] },
      ...words,
      reference: free(`${prefix}-${words.reference}`),
      ...{ meaningSeq: state.seq + 1, origin: 'made', bindings: [], exchanged: {} },
      ...{ createdAt: now, changedAt: now, changedBy: person },
    };
  }

  function free(wanted: string): string {
    let reference = wanted;
    for (let number = 2; taken.has(reference.toLowerCase()) || state.byReference.has(reference.toLowerCase()); number++) reference = `${wanted}.${number}`;
    taken.add(reference.toLowerCase());
    return reference;
  }
}

/** Sections of a first outline are lettered, so that the first item that somebody writes is number one. */
function nameSection(at: number): string {
  return String.fromCharCode(65 + (at % 26)) + (at >= 26 ? String(Math.floor(at / 26)) : '');
}
