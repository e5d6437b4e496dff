import {
  buildRanks,
  type Draft,
  type ExchangeBase,
  findBinding,
  groupBy,
  type Issue,
  isSame,
  type MergeChoice,
  type MergeEntry,
  mergeOrder,
  type RecipeOutcome,
  type Resolution,
  resolveEntry,
  type Stepwise,
  withBinding,
} from '@coomb/core';
import { cleanFields, hiddenFields } from '../../items/check-fields.js';
import { changesMeaning } from '../../items/items.service.js';
import type { Change, ItemValue, LinkValue, WaitingEndValue } from '../../ledger/change.js';
import { joinEnd } from '../../link-rows/join-waiting.js';
import { LinkEnds } from '../../link-rows/link-ends.js';
import { buildItem, buildLinks, buildNaming, type ImportContext } from '../build-import.js';
import type { Comparison } from './compare-versions.js';
import { readLink, writeLink } from './exchange.js';
import { withValues } from '../../items/item-values.js';

export interface BuiltImportAgain {
  changes: Change[];
  counts: { added: number; changed: number; moved: number; withdrawn: number; links: number; unlinked: number };
  issues: Issue[];
  /** Item of each draft by its key, for the places; missing where a new draft was not taken. */
  itemOf: Map<number, string>;
  /** Links to withdraw, as pairs of ids. */
  unlink: Unlink[];
}

/** A link that goes: that of these uses, by ids of their paths, or the one that holds everywhere. */
export interface Unlink {
  linkKind: string;
  from: string;
  to: string;
  fromUse: readonly string[] | null;
  toUse: readonly string[] | null;
}

/** Name of an entry that choices are kept under: `t12` for draft 12, `m<id>` for an item that the newer version lacks. */
export function entryId(comparison: Comparison, entry: MergeEntry): string {
  return entry.theirs >= 0 ? `t${entry.theirs}` : `m${comparison.mine[entry.mine]!.id}`;
}

/** Turns a comparison and what was chosen into rows. Nothing is stored here. */
export function buildImportAgain(
  context: ImportContext,
  comparison: Comparison,
  outcome: RecipeOutcome,
  choices: Record<string, MergeChoice>,
  waiting: readonly WaitingEndValue[] = [],
): Stepwise<BuiltImportAgain> {
  return new ImportAgain(context, comparison, outcome, choices, waiting).build();
}

class ImportAgain {
  private readonly issues: Issue[];
  private readonly after: ItemValue[];
  /** Final row of each draft, where it has one. */
  private readonly rowOf = new Map<number, ItemValue>();
  /** Final rows of the collection, those of new items with them. */
  private readonly byId: Map<string, ItemValue>;
  private readonly resolved: { entry: MergeEntry; resolution: Resolution }[] = [];
  /** Ids that get a new place among their siblings. */
  private readonly loose = new Set<string>();
  private ends: LinkEnds | undefined;
  private readonly counts = { added: 0, changed: 0, moved: 0, withdrawn: 0, links: 0, unlinked: 0 };

  constructor(
    private readonly context: ImportContext,
    private readonly comparison: Comparison,
    private readonly outcome: RecipeOutcome,
    private readonly choices: Record<string, MergeChoice>,
    private readonly waiting: readonly WaitingEndValue[],
  ) {
    this.issues = [...outcome.issues];
    this.after = comparison.rows.map((row) => ({ ...row }));
    this.byId = new Map(this.after.map((row) => [row.id, row]));
  }

  *build(): Stepwise<BuiltImportAgain> {
    for (const entry of this.comparison.merge.entries) {
      this.resolved.push({ entry, resolution: resolveEntry(entry, this.choices[entryId(this.comparison, entry)]) });
      yield;
    }
    const nameItem = buildNaming(this.context, this.newDrafts(), this.issues);
    for (const { entry, resolution } of this.resolved) {
      if (entry.theirs < 0) this.withdraw(entry, resolution);
      else if (entry.mine < 0) this.add(entry, resolution, nameItem);
      else this.update(entry, resolution);
      yield;
    }
    yield* this.settleBases();
    this.placeLoose();
    const { links, waiting, unlink } = yield* this.settleLinks();
    return {
      changes: [...(yield* this.itemChanges()), ...links.map((after): Change => ({ entity: 'link', before: null, after })), ...waiting],
      counts: { ...this.counts, links: links.length, unlinked: unlink.length },
      issues: this.issues,
      itemOf: new Map([...this.rowOf].map(([draft, row]) => [draft, row.id])),
      unlink,
    };
  }

  private newDrafts(): Draft[] {
    return this.resolved.filter(({ resolution }) => resolution.create).map(({ entry }) => this.comparison.drafts[entry.theirs]!);
  }

  private withdraw(entry: MergeEntry, resolution: Resolution): void {
    if (!resolution.withdraw) return;
    this.after[entry.mine]!.withdrawn = true;
    this.counts.withdrawn++;
  }

  private add(entry: MergeEntry, resolution: Resolution, nameItem: (draft: Draft) => string): void {
    if (!resolution.create) return;
    const draft = this.comparison.drafts[entry.theirs]!;
    const row = { ...buildItem(this.context, draft, nameItem(draft)), parentId: this.parentOf(entry.theirs) };
    row.exchanged = { [this.context.sourceId]: { place: null, base: null } };
    this.rowOf.set(entry.theirs, row);
    this.byId.set(row.id, row);
    this.loose.add(row.id);
    this.counts.added++;
  }

  private update(entry: MergeEntry, resolution: Resolution): void {
    const before = this.comparison.rows[entry.mine]!;
    const row = this.after[entry.mine]!;
    this.rowOf.set(entry.theirs, row);
    const { state, person, now } = this.context;
    if (Object.keys(resolution.values).length > 0) {
      Object.assign(row, withValues(row, resolution.values));
      if ('details' in resolution.values) row.details = this.comparison.drafts[entry.theirs]!.details ?? [];
      row.fields = { ...hiddenFields(state.scheme, row.kind, row.fields), ...cleanFields(state.scheme, row.kind, row.fields) };
      if (changesMeaning(state.scheme, before, row)) row.meaningSeq = state.seq + 1;
      Object.assign(row, { changedAt: now, changedBy: person });
      this.counts.changed++;
    }
    if (resolution.restore) row.withdrawn = false;
    this.bind(row, this.comparison.drafts[entry.theirs]!);
    if (!resolution.place) return;
    const parent = this.parentOf(entry.theirs);
    if (parent !== null && this.isBelow(parent, row.id)) {
      this.issues.push({
        severity: 'warning',
        code: 'move-refused',
        at: row.reference,
        message: `${row.reference} cannot be moved below itself; it stays where it is`,
      });
      return;
    }
    row.parentId = parent;
    this.loose.add(row.id);
    this.counts.moved++;
  }

  /** From now on the partner knows the item; what others know of it stays. */
  private bind(row: ItemValue, { externalId }: Draft): void {
    const partner = this.context.sourceId;
    const known = findBinding(row.bindings, partner);
    if (known && (known.externalId !== null || externalId === null)) return;
    row.bindings = withBinding(row.bindings, { partner, externalId: known?.externalId ?? externalId, tag: known?.tag ?? null });
  }

  /** The item that a draft's parent is; the nearest taken one above where that was not taken. */
  private parentOf(draft: number): string | null {
    for (let up = this.comparison.drafts[draft]!.parent; up >= 0; up = this.comparison.drafts[up]!.parent) {
      const row = this.rowOf.get(up);
      if (row && !row.withdrawn) return row.id;
    }
    return null;
  }

  private isBelow(id: string, ancestor: string): boolean {
    const seen = new Set<string>();
    for (let at: string | null | undefined = id; at && !seen.has(at); at = this.byId.get(at)?.parentId) {
      if (at === ancestor) return true;
      seen.add(at);
    }
    return false;
  }

  /** What is exchanged now is the base of the next comparison. Order numbers stay where the order did, new ones go between. */
  private *settleBases(): Stepwise<void> {
    const { drafts } = this.comparison;
    const siblings = groupBy(
      [...this.rowOf.keys()].sort((a, b) => a - b),
      (index) => drafts[index]!.parent,
    );
    const entryOf = new Map(this.resolved.map(({ entry }) => [entry.theirs, entry]));
    for (const list of siblings.values()) {
      const orders = new Map<string, number>();
      const unsettled = new Set<string>();
      for (const draft of list) {
        const entry = entryOf.get(draft)!;
        const base = entry.mine < 0 ? null : this.comparison.mine[entry.mine]!.base;
        if (base && !entry.place) orders.set(String(draft), base.order);
        else unsettled.add(String(draft));
      }
      const given = buildRanks(list.map(String), orders, unsettled);
      for (const draft of list) {
        this.settleBase(draft, given.get(String(draft)) ?? orders.get(String(draft))!);
        yield;
      }
    }
  }

  private settleBase(draft: number, order: number): void {
    const row = this.rowOf.get(draft)!;
    const { values, links } = this.comparison.theirs[draft]!;
    const parentDraft = this.comparison.drafts[draft]!.parent;
    const parent = parentDraft < 0 ? null : (this.rowOf.get(parentDraft)?.id ?? null);
    const base: ExchangeBase = { values, links, parent, order };
    const partner = this.context.sourceId;
    const known = row.exchanged[partner] ?? { place: null, base: null };
    if (!known.base || !isSameBase(known.base, base)) row.exchanged = { ...row.exchanged, [partner]: { ...known, base } };
  }

  /** New and moved items take their place among their siblings as they stand here. */
  private placeLoose(): void {
    const { state, collection } = this.context;
    const parentNow = (item: { id: string; parentId: string | null }) => (this.byId.get(item.id) ?? item).parentId;
    const standing = state.items.filter((item) => !item.withdrawn && item.collectionId === collection.id);
    const presentBelow = groupBy(standing, parentNow);
    const theirsBelow = groupBy([...this.rowOf.values()], parentNow);
    for (const parent of new Set([...this.loose].map((id) => this.byId.get(id)!.parentId))) {
      const rankOf = new Map((presentBelow.get(parent) ?? []).map((item) => [item.id, item.rank]));
      const present = [...rankOf.keys()].sort((a, b) => rankOf.get(a)! - rankOf.get(b)!);
      const theirs = (theirsBelow.get(parent) ?? []).map((row) => row.id);
      for (const [id, rank] of buildRanks(mergeOrder(present, theirs, this.loose), rankOf, this.loose)) {
        const row = this.byId.get(id);
        if (row) row.rank = rank;
      }
    }
  }

  private *settleLinks(): Stepwise<{ links: LinkValue[]; waiting: Change[]; unlink: BuiltImportAgain['unlink'] }> {
    const added = new Map<number, Set<string>>();
    const unlink: BuiltImportAgain['unlink'] = [];
    for (const { entry, resolution } of this.resolved) {
      if (resolution.linksAdded.length && this.rowOf.has(entry.theirs)) added.set(entry.theirs, new Set(resolution.linksAdded));
      for (const text of resolution.linksRemoved) {
        const { linkKind, reversed, target } = readLink(text);
        const own = this.comparison.mine[entry.mine]!.id;
        const found = this.findTarget(target);
        if (!found) continue;
        const { end: other, ownUse, otherUse } = found;
        unlink.push(
          reversed
            ? { linkKind, from: other, to: own, fromUse: otherUse, toUse: ownUse }
            : { linkKind, from: own, to: other, fromUse: ownUse, toUse: otherUse },
        );
      }
    }
    const wanted = this.outcome.links.filter((link) => added.get(link.draft)?.has(writeLink(link)));
    const numberOf = new Map([...added.keys()].map((draft, index) => [draft, index]));
    const rows = [...added.keys()].map((draft) => this.rowOf.get(draft)!);
    const renumbered = wanted.map((link) => ({ ...link, draft: numberOf.get(link.draft)! }));
    const { links, waiting, usages } = yield* buildLinks(this.context, { links: renumbered }, rows, this.issues);
    return { links, waiting: [...usages, ...this.endWaiting(), ...waiting.map((after): Change => ({ entity: 'waitingEnd', before: null, after }))], unlink };
  }

  /** What the newer version asks for no more waits no longer. */
  private endWaiting(): Change[] {
    const asked = new Map(
      this.resolved.flatMap(({ entry }) => (entry.mine < 0 || entry.theirs < 0 ? [] : [[this.comparison.mine[entry.mine]!.id, entry.theirs] as const])),
    );
    return this.waiting.flatMap((one): Change[] => {
      const draft = asked.get(one.itemId);
      if (one.partner !== this.context.sourceId || draft === undefined) return [];
      const texts = one.linkKinds.map((linkKind) => writeLink({ linkKind, reversed: one.reversed, target: one.target, awaits: one.linkKinds }));
      return this.comparison.theirs[draft]!.links.some((text) => texts.includes(text)) ? [] : joinEnd(one, null);
    });
  }

  /** Item that a link of the older version led to: by reference or identifier, else by title. */
  private findTarget(target: string): { end: string; ownUse: string[] | null; otherUse: string[] | null } | undefined {
    this.ends ??= new LinkEnds(this.context.state, [], this.context.sourceId, this.context.fileNames);
    const found = this.ends.find({ target });
    const inUse = 'count' in found ? this.ends.findInUse(target, undefined) : undefined;
    if (inUse) return { ...inUse, end: inUse.end.id };
    const end = 'count' in found ? this.ends.find({ target, by: 'title' }) : found;
    return 'count' in end ? undefined : { end: end.id, ownUse: null, otherUse: null };
  }

  private *itemChanges(): Stepwise<Change[]> {
    const changes: Change[] = [];
    const known = new Set(this.comparison.rows.map((row) => row.id));
    for (const row of this.rowOf.values()) if (!known.has(row.id)) changes.push({ entity: 'item', before: null, after: row });
    for (const [index, before] of this.comparison.rows.entries()) {
      yield;
      const after = this.after[index]!;
      if (JSON.stringify(before) === JSON.stringify(after)) continue;
      changes.push({ entity: 'item', before, after: { ...after, revision: before.revision + 1 } });
    }
    return changes;
  }
}

/** The database writes keys in an order of its own, so bases are compared value by value. */
function isSameBase(a: ExchangeBase, b: ExchangeBase): boolean {
  const names = new Set([...Object.keys(a.values), ...Object.keys(b.values)]);
  return (
    a.parent === b.parent &&
    a.order === b.order &&
    isSame(a.links, b.links) &&
    [...names].every((name) => isSame(a.values[name] ?? null, b.values[name] ?? null))
  );
}
