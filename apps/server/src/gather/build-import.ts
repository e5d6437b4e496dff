import { buildReference, type Draft, findLinkKind, type Issue, type RecipeOutcome } from '@coomb/core';
import { pictureScheme, sanitiseRichText } from '@coomb/formats';
import { cleanFields } from '../items/items.service.js';
import type { Change, CollectionRow, ItemRow, LinkRow } from '../ledger/change.js';
import type { ProjectState } from '../project-state/project-state.js';

export interface ImportContext {
  state: ProjectState;
  person: string;
  now: string;
  newId: () => string;
  collection: CollectionRow;
  sourceId: string;
  /** Stored address of each picture of the source. */
  pictureAddress: Map<string, string>;
}

export interface BuiltImport {
  changes: Change[];
  items: number;
  links: number;
  issues: Issue[];
}

/** Turns what a recipe made of a file into rows: references given, links resolved, rich text sanitised. Nothing is stored here. */
export function buildImport(context: ImportContext, outcome: RecipeOutcome): BuiltImport {
  const issues: Issue[] = [...outcome.issues];
  const rows = buildItems(context, outcome.drafts, issues);
  const links = buildLinks(context, outcome, rows, issues);
  const changes: Change[] = [
    ...rows.map((after): Change => ({ entity: 'item', before: null, after })),
    ...links.map((after): Change => ({ entity: 'link', before: null, after })),
  ];
  return { changes, items: rows.length, links: links.length, issues };
}

function buildItems(context: ImportContext, drafts: readonly Draft[], issues: Issue[]): ItemRow[] {
  const { state, collection, person, now } = context;
  const taken = new Set(drafts.filter((draft) => draft.reference !== null).map((draft) => draft.reference!.toLowerCase()));
  const next = new Map<string, number>();
  const give = (prefix: string): string => {
    for (let number = next.get(prefix) ?? state.nextNumber(prefix); ; number++) {
      const reference = buildReference(prefix, number);
      if (taken.has(reference.toLowerCase()) || state.byReference.has(reference.toLowerCase())) continue;
      next.set(prefix, number + 1);
      return reference;
    }
  };
  const ranks = new Map<number, number>();
  const firstRank = state.items.reduce((most, item) => (item.collectionId === collection.id && item.parentId === null ? Math.max(most, item.rank) : most), 0);
  const rows: ItemRow[] = [];
  for (const draft of drafts) {
    const rank = (ranks.get(draft.parent) ?? (draft.parent < 0 ? firstRank : 0)) + 1024;
    ranks.set(draft.parent, rank);
    let { reference } = draft;
    if (reference !== null && state.byReference.has(reference.toLowerCase())) {
      const given = give(collection.prefix);
      issues.push({
        severity: 'warning',
        code: 'reference-taken',
        at: draft.place.says,
        message: `${reference} is the reference of an item that the project has already; this one is ${given}`,
      });
      reference = given;
    }
    const fields = cleanFields(state.scheme, draft.kind, draft.fields);
    rows.push({
      id: context.newId(),
      projectId: state.id,
      revision: 1,
      withdrawn: false,
      collectionId: collection.id,
      kind: draft.kind,
      reference: reference ?? give(draft.role === 'section' ? `${collection.prefix}-S` : collection.prefix),
      title: draft.title.slice(0, 500),
      html: placePictures(sanitiseRichText(draft.html), context.pictureAddress),
      fields,
      heading: draft.role === 'section',
      parentId: draft.parent < 0 ? null : rows[draft.parent]!.id,
      rank,
      meaningSeq: state.seq + 1,
      origin: 'imported',
      externalId: draft.externalId,
      sourceId: context.sourceId,
      place: draft.place,
      createdAt: now,
      changedAt: now,
      changedBy: person,
    });
  }
  return rows;
}

function buildLinks(context: ImportContext, outcome: RecipeOutcome, rows: readonly ItemRow[], issues: Issue[]): LinkRow[] {
  const { state } = context;
  const byKey = new Map<string, { id: string; kind: string; reference: string; meaningSeq: number }>();
  for (const item of state.items) {
    if (item.withdrawn) continue;
    if (item.externalId) byKey.set(item.externalId.toLowerCase(), item);
    byKey.set(item.reference.toLowerCase(), item);
  }
  for (const row of rows) {
    byKey.set(row.reference.toLowerCase(), row);
    if (row.externalId) byKey.set(row.externalId.toLowerCase(), row);
  }
  const seen = new Set<string>();
  const links: LinkRow[] = [];
  for (const link of outcome.links) {
    const own = rows[link.draft]!;
    const other = byKey.get(link.target.toLowerCase());
    const kind = findLinkKind(state.scheme, link.linkKind);
    const complain = (code: string, message: string) => issues.push({ severity: 'warning', code, at: link.place.says, message });
    if (!kind) continue;
    if (!other) {
      complain(
        'link-target-unknown',
        `${own.reference} ${link.reversed ? kind.reverse : kind.phrase} "${link.target.slice(0, 80)}", which is in no collection of the project; no link was made`,
      );
      continue;
    }
    const [from, to] = link.reversed ? [other, own] : [own, other];
    if (from.id === to.id || !kind.fromKinds.includes(from.kind) || !kind.toKinds.includes(to.kind)) {
      complain('link-not-allowed', `"${kind.phrase}" does not join ${from.reference} with ${to.reference}; no link was made`);
      continue;
    }
    const key = `${link.linkKind} ${from.id} ${to.id}`;
    if (seen.has(key)) continue;
    seen.add(key);
    links.push({
      id: context.newId(),
      projectId: state.id,
      revision: 1,
      withdrawn: false,
      kind: link.linkKind,
      fromId: from.id,
      toId: to.id,
      fromUsage: null,
      toUsage: null,
      fields: {},
      origin: 'imported',
      fromSeq: from.meaningSeq,
      toSeq: to.meaningSeq,
      confirmedBy: context.person,
      confirmedAt: context.now,
    });
  }
  return links;
}

function placePictures(html: string, addresses: Map<string, string>): string {
  if (!html.includes(pictureScheme)) return html;
  return html.replace(/<img src="coomb-picture:([^"]*)"([^>]*)>/g, (_, name: string, rest: string) => {
    const address = addresses.get(name.replace(/&amp;/g, '&'));
    return address ? `<img src="${address}"${rest}>` : '';
  });
}
