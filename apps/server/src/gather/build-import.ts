import { buildReference, type Draft, findLinkKind, fitTitle, isAllowed, type Issue, type RecipeOutcome, type Stepwise } from '@coomb/core';
import { embeddedScheme, pictureScheme, sanitiseRichText } from '@coomb/formats';
import { CoombError } from '@coomb/contract';
import { UsageFinder } from '../link-rows/usage-finder.js';
import { cleanFields } from '../items/check-fields.js';
import { type Change, type CollectionValue, type ItemValue, type LinkValue, UNNUMBERED, type WaitingEndValue } from '../ledger/change.js';
import type { ProjectState } from '../project-state/project-state.js';
import { linksByDraft } from './import-again/exchange.js';
import { valuesOf } from '../items/item-values.js';
import { buildLink, importedAs, isLinked } from '../link-rows/build-link.js';
import { chooseKind, joinWaiting } from '../link-rows/join-waiting.js';
import { sayWaiting } from './say-waiting.js';
import { type LinkEnd, LinkEnds } from '../link-rows/link-ends.js';

/** What an import must know of the project that it goes into. */
export type ImportTarget = Partial<Pick<ProjectState, 'usages' | 'linkUsage'>> &
  Pick<ProjectState, 'id' | 'seq' | 'scheme' | 'items' | 'contents' | 'nodeOf' | 'nextNumber' | 'linkKindIndex' | 'meaningOf'> & {
    byReference: Pick<ProjectState['byReference'], 'get' | 'has'>;
    graph: Pick<ProjectState['graph'], 'findLinks' | 'to'>;
  };

export interface ImportContext<State extends ImportTarget = ImportTarget> {
  state: State;
  person: string;
  now: string;
  newId: () => string;
  collection: CollectionValue;
  /** The partner that it comes from: the line of versions of the file. */
  sourceId: string;
  /** Names of the files of each partner, this one's too. */
  fileNames?: ReadonlyMap<string, ReadonlySet<string>>;
  /** Stored address of each picture of the source. */
  pictureAddress: Map<string, string>;
}

export interface BuiltImport {
  changes: Change[];
  items: number;
  sections: number;
  links: number;
  issues: Issue[];
}

/** Turns what a recipe made of a file into rows: references given, links resolved, rich text sanitised. Nothing is stored here. */
export function* buildImport(context: ImportContext, outcome: RecipeOutcome): Stepwise<BuiltImport> {
  const issues: Issue[] = [...outcome.issues];
  const rows = yield* buildItems(context, outcome, issues);
  const { links, waiting, usages } = yield* buildLinks(context, outcome, rows, issues);
  const changes: Change[] = [
    ...rows.map((after): Change => ({ entity: 'item', before: null, after })),
    ...usages,
    ...links.map((after): Change => ({ entity: 'link', before: null, after })),
    ...waiting.map((after): Change => ({ entity: 'waitingEnd', before: null, after })),
  ];
  const sections = rows.filter((row) => row.heading).length;
  return { changes, items: rows.length - sections, sections, links: links.length, issues };
}

function* buildItems(context: ImportContext, { drafts, links }: RecipeOutcome, issues: Issue[]): Stepwise<ItemValue[]> {
  const { state, collection } = context;
  const nameItem = buildNaming(context, drafts, issues);
  const linksOf = linksByDraft(links);
  const ranks = new Map<number, number>();
  const firstRank = state.items.reduce((most, item) => (item.collectionId === collection.id && item.parentId === null ? Math.max(most, item.rank) : most), 0);
  const rows: ItemValue[] = [];
  for (const draft of drafts) {
    const rank = (ranks.get(draft.parent) ?? (draft.parent < 0 ? firstRank : 0)) + 1024;
    ranks.set(draft.parent, rank);
    const parentId = draft.parent < 0 ? null : rows[draft.parent]!.id;
    rows.push({ ...buildItem(context, draft, nameItem(draft)), parentId, rank });
    const base = { values: valuesOf(rows.at(-1)!), links: linksOf.get(draft.key) ?? [], parent: parentId, order: draft.key };
    rows.at(-1)!.exchanged = { [context.sourceId]: { place: draft.place, base } };
    yield;
  }
  return rows;
}

/** References for drafts: their own where it is free, else the next of the collection's prefix, with a remark. */
export function buildNaming(context: ImportContext, drafts: readonly Draft[], issues: Issue[]): (draft: Draft) => string {
  const { state, collection } = context;
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
  return (draft) => {
    if (draft.reference === null) return give(draft.role === 'section' ? `${collection.prefix}-S` : collection.prefix);
    if (!state.byReference.has(draft.reference.toLowerCase())) return draft.reference;
    const given = give(collection.prefix);
    issues.push({
      severity: 'warning',
      code: 'reference-taken',
      at: draft.place.says,
      message: `${draft.reference} is the reference of an item that the project has already; this one is ${given}`,
    });
    return given;
  };
}

/** What a draft holds, cleaned as it will be stored. */
export function buildContent(
  { state, pictureAddress }: ImportContext,
  draft: Draft,
): Pick<ItemValue, 'title' | 'html' | 'kind' | 'heading' | 'fields' | 'details'> {
  return {
    title: fitTitle(draft.title),
    html: placePictures(sanitiseRichText(draft.html), pictureAddress),
    kind: draft.kind,
    heading: draft.role === 'section',
    details: draft.details ?? [],
    fields: cleanFields(state.scheme, draft.kind, draft.fields),
  };
}

/** A new row for a draft, at the top of its collection until it is given its place. */
export function buildItem(context: ImportContext, draft: Draft, reference: string): ItemValue {
  const { state, collection, person, now } = context;
  return {
    id: context.newId(),
    projectId: state.id,
    revision: 1,
    withdrawn: false,
    collectionId: collection.id,
    reference,
    ...buildContent(context, draft),
    parentId: null,
    rank: 0,
    node: UNNUMBERED,
    meaningSeq: state.seq + 1,
    origin: 'imported',
    bindings: [{ partner: context.sourceId, externalId: draft.externalId, tag: null }],
    exchanged: { [context.sourceId]: { place: draft.place, base: null } },
    createdAt: now,
    changedAt: now,
    changedBy: person,
  };
}

/** What an import would be, told without making it: how many links find their other end, and what would be remarked beyond the recipe's own remarks. */
export function* checkImport(context: ImportContext, outcome: RecipeOutcome, isAgain: boolean): Stepwise<{ links: number; issues: Issue[] }> {
  const issues: Issue[] = [];
  const nameItem = isAgain ? (draft: Draft) => draft.reference ?? '' : buildNaming(context, outcome.drafts, issues);
  const ends = outcome.drafts.map((draft): LinkEnd => {
    const { kind, externalId, title } = draft;
    const bindings = [{ partner: context.sourceId, externalId, tag: null }];
    return { id: `draft ${draft.key}`, reference: nameItem(draft), kind, bindings, title, meaningSeq: 0, collectionId: context.collection.id };
  });
  const { links, waiting } = yield* buildLinks(context, outcome, ends, issues);
  return { links: links.length, issues: [...issues, ...sayWaiting(waiting.length, 0)] };
}

export function* buildLinks(
  context: ImportContext,
  outcome: Pick<RecipeOutcome, 'links'>,
  rows: readonly LinkEnd[],
  issues: Issue[],
): Stepwise<{ links: LinkValue[]; waiting: WaitingEndValue[]; usages: Change[] }> {
  const { state } = context;
  const ends = new LinkEnds(state, rows, context.sourceId, context.fileNames);
  const seen = new Set<string>();
  const links: LinkValue[] = [];
  const waiting: WaitingEndValue[] = [];
  const brought = new Set(rows.map((row) => row.id));
  const finder = state.usages && new UsageFinder(state as ProjectState, context.newId, (id) => brought.has(id));
  for (const link of outcome.links) {
    yield;
    const own = rows[link.draft]!;
    let kind = findLinkKind(state.scheme, link.linkKind);
    const complain = (code: string, message: string) => issues.push({ severity: 'warning', code, at: link.place.says, message });
    if (!kind) continue;
    const named = ends.find(link);
    const inUse = link.ownUse || link.otherUse ? ends.findUses(link) : 'count' in named && named.count === 0 ? ends.findInUse(link.target, link.by) : undefined;
    const other = inUse?.end ?? named;
    if ((link.ownUse || link.otherUse) && !inUse && !('count' in other)) {
      complain(
        'usage-unknown',
        `${own.reference} ${link.reversed ? kind.reverse : kind.phrase} ${other.reference} in one use only, and an element of that path became no item; no link was made`,
      );
      continue;
    }
    if ('count' in other) {
      const names = `${own.reference} ${link.reversed ? kind.reverse : kind.phrase} "${link.target.slice(0, 80)}"`;
      const where = link.within?.length ? link.within.join(', ') : 'the project';
      if (link.awaits) {
        const { reversed, target } = link;
        const { id, partner } = { id: context.newId(), partner: context.sourceId };
        waiting.push({ id, projectId: state.id, revision: 1, withdrawn: false, itemId: own.id, linkKinds: link.awaits, reversed, target, partner });
      } else if (other.count > 0) complain('link-target-several', `${names}, a title that ${other.count} items of ${where} have; no link was made`);
      else complain('link-target-unknown', `${names}, which is not in ${where}; no link was made`);
      continue;
    }
    const [from, to] = link.reversed ? [other, own] : [own, other];
    if (link.awaits) kind = chooseKind(state.scheme, { linkKinds: link.awaits, reversed: link.reversed }, own.kind, other.kind) ?? kind;
    if (from.id === to.id || !isAllowed(kind, from.kind, to.kind)) {
      complain('link-not-allowed', `"${kind.phrase}" does not join ${from.reference} with ${to.reference}; no link was made`);
      continue;
    }
    const [ownUsage, otherUsage] = readUses(finder, own, other, inUse, (message) => complain('usage-unknown', message));
    if (ownUsage === undefined || otherUsage === undefined) continue;
    const [fromUsage, toUsage] = link.reversed ? [otherUsage, ownUsage] : [ownUsage, otherUsage];
    const key = `${kind.id} ${from.id} ${to.id} ${fromUsage} ${toUsage}`;
    if (seen.has(key) || isLinked(state, kind.id, from.id, to.id, { from: fromUsage, to: toUsage })) continue;
    seen.add(key);
    const held = (end: LinkEnd, usage: string | null) => (usage && finder ? { ...end, usage: { id: usage, path: finder.pathOf(usage) } } : end);
    links.push({ ...buildLink(context, kind.id, held(from, fromUsage), held(to, toUsage)), ...(link.sort && { origin: importedAs(link.sort) }) });
  }
  return { links, waiting, usages: finder?.made ?? [] };
}

/** Usages in which a link holds only, by their ids; undefined where a path does not lead to its end, which is told. */
function readUses(
  finder: UsageFinder | undefined,
  own: LinkEnd,
  other: LinkEnd,
  uses: { ownUse: string[] | null; otherUse: string[] | null } | undefined,
  complain: (message: string) => void,
): [own: string | null | undefined, other: string | null | undefined] {
  if (!uses || !finder) return [null, null];
  const read = (end: LinkEnd, path: string[] | null) => {
    try {
      return finder.find(end, path ?? undefined);
    } catch (cause) {
      if (!(cause instanceof CoombError)) throw cause;
      complain(`${cause.message} No link was made.`);
      return undefined;
    }
  };
  return [read(own, uses.ownUse), read(other, uses.otherUse)];
}

/** Ends that waited for what is brought now become links. */
export function joinBrought(context: ImportContext, built: readonly Change[], waiting: readonly WaitingEndValue[]): { changes: Change[]; joined: number } {
  const { state } = context;
  if (waiting.length === 0) return { changes: [], joined: 0 };
  const brought = built.flatMap((change) => (change.entity === 'item' && !change.after.withdrawn ? [change.after] : []));
  const made = new Set(built.flatMap((change) => (change.entity === 'link' ? [`${change.after.kind} ${change.after.fromId} ${change.after.toId}`] : [])));
  const broughtById = new Map(brought.map((row) => [row.id, row]));
  const ownEnd = (id: string): LinkEnd | undefined => {
    const item = broughtById.get(id) ?? state.items[state.nodeOf.get(id) ?? -1];
    return item && !item.withdrawn ? item : undefined;
  };
  const makeLink = (kind: string, from: LinkEnd, to: LinkEnd) =>
    made.has(`${kind} ${from.id} ${to.id}`) || isLinked(state, kind, from.id, to.id) ? null : buildLink(context, kind, from, to);
  return joinWaiting(state.scheme, waiting, new LinkEnds(state, brought, context.sourceId, context.fileNames), ownEnd, makeLink);
}

/** Gives pictures and embedded objects the addresses they are stored at. What is not stored keeps the name that its file has for it. */
export function placePictures(html: string, addresses: Map<string, string>): string {
  if (!html.includes(pictureScheme) && !html.includes(embeddedScheme)) return html;
  return html.replace(/(<(?:img src|a href)=")coomb-(?:picture|file):([^"]*)"/g, (whole, start: string, name: string) => {
    const address = addresses.get(name.replace(/&amp;/g, '&'));
    return address ? `${start}${address}"` : whole;
  });
}
