import type { BodyOf, Item, createItem, editItem } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import {
  buildRankBetween,
  buildReference,
  type FieldValue,
  fieldTypeOf,
  findKind,
  getKind,
  offeredKinds,
  isWithin,
  type Scheme,
  counted,
  mergeEdit,
  type MergeValue,
} from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { CLOCK, type Clock } from '../http/tokens.js';
import { type Change, type CollectionValue, type ItemValue, UNNUMBERED } from '../ledger/change.js';
import { PersonsService } from '../persons/persons.service.js';
import { assertSeen } from '../ledger/assert-seen.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { PastRepo } from '../ledger/past.repo.js';
import { LedgerService } from '../changes/ledger.service.js';
import type { ProjectState } from '../project-state/project-state.js';
import type { LightItem } from '../project-state/light-item.js';
import { ProjectStates } from '../project-state/project-states.js';
import { presentBase, presentHand } from '../http/caller.js';
import { fieldOf, valuesOf, withValues } from './item-values.js';
import { checkFields, defaultsOf, hiddenFields, keepFields } from './check-fields.js';
import { HtmlCleaner } from './clean-html.js';
import { asItem } from './item-reading.service.js';
import { getNode } from '../project-state/get-node.js';

export type NewItem = Required<BodyOf<typeof createItem>> | BodyOf<typeof createItem>;

/** Adds, edits, moves and withdraws items, each as one undoable batch. */
@Injectable()
export class ItemsService {
  constructor(
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(HtmlCleaner) private readonly html: HtmlCleaner,
    @Inject(PastRepo) private readonly past: PastRepo,
    @Inject(PersonsService) private readonly persons: PersonsService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async create(projectId: string, person: string, wanted: NewItem): Promise<Item> {
    const { ids } = await this.ledger.change(projectId, async (state) => {
      const { row, moved } = await this.planCreate(state, person, wanted);
      return { person, action: `Add ${row.reference}`, changes: [{ entity: 'item', before: null, after: row }, ...moved] };
    });
    return this.read(projectId, ids[0]!);
  }

  /** The row of a new item at its place, and the siblings that must make room. Refuses what is not allowed there. Nothing is stored. */
  async planCreate(state: ProjectState, person: string, wanted: NewItem): Promise<{ row: ItemValue; moved: Change[] }> {
    const collection = findHome(state, wanted);
    const after = wanted.after ? state.items[getNode(state, wanted.after)]! : undefined;
    const parentId = after ? after.parentId : (wanted.parent ?? null);
    if (parentId !== null && state.items[getNode(state, parentId)]!.collectionId !== collection.id)
      throw new CoombError('move-refused', 'An item and its parent must stand in the same collection.');
    const siblings = findSiblings(state, collection.id, parentId);
    const { rank, moved } = await this.makeRoom(state, siblings, after?.id ?? siblings.at(-1)?.id ?? null);
    const kind = wanted.kind ?? collection.kind;
    assertOffered(state.scheme, kind);
    const now = this.clock.now().toISOString();
    const row: ItemValue = {
      id: this.clock.newId(),
      projectId: state.id,
      revision: 1,
      withdrawn: false,
      collectionId: collection.id,
      kind,
      reference: buildReference(collection.prefix, state.nextNumber(collection.prefix)),
      title: wanted.title.trim(),
      html: await this.html.clean(wanted.html ?? ''),
      fields: keepFields(state.scheme, kind, { ...defaultsOf(state.scheme, kind), ...(await this.cleanFields(state.scheme, kind, wanted.fields ?? {})) }),
      heading: wanted.heading ?? false,
      details: [],
      parentId,
      rank,
      node: UNNUMBERED,
      meaningSeq: state.seq + 1,
      origin: 'made',
      bindings: [],
      exchanged: {},
      createdAt: now,
      changedAt: now,
      changedBy: person,
    };
    return { row, moved };
  }

  async edit(projectId: string, person: string, idOrReference: string, wanted: BodyOf<typeof editItem>): Promise<Item> {
    let id = '';
    await this.ledger.change(projectId, async (state) => {
      const node = getNode(state, idOrReference);
      id = state.items[node]!.id;
      const before = (await this.rows.findRows('item', [id])).get(id)!;
      if (before.withdrawn)
        throw new CoombError(
          'changed-meanwhile',
          `${before.reference} was withdrawn by ${this.persons.nameOf(before.changedBy)}. Restore it first, then write in it.`,
          {
            revision: before.revision,
          },
        );
      const kind = wanted.kind ?? before.kind;
      if (kind !== before.kind) assertOffered(state.scheme, kind);
      const html = wanted.html === undefined || wanted.html === before.html ? undefined : await this.html.clean(wanted.html);
      const own = wanted.fields && (await this.cleanFields(state.scheme, kind, wanted.fields));
      const said = {
        ...(wanted.title !== undefined && { title: wanted.title.trim() }),
        ...(html !== undefined && { text: html }),
        ...(wanted.kind !== undefined && { kind }),
        ...Object.fromEntries(Object.entries(own ?? {}).map(([field, value]) => [`field:${field}`, value])),
      };
      const values = await this.joinWithOthers(state, before, said, wanted);
      const changed = withValues(before, values);
      const after: ItemValue = {
        ...changed,
        fields:
          changed.kind === before.kind && own === undefined
            ? before.fields
            : { ...hiddenFields(state.scheme, changed.kind, changed.fields), ...keepFields(state.scheme, changed.kind, changed.fields) },
      };
      const fields = describeEdit(state.scheme, before, after);
      if (fields.length === 0) return { person, action: '', changes: [] };
      Object.assign(after, { revision: before.revision + 1, changedAt: this.clock.now().toISOString(), changedBy: person });
      if (changesMeaning(state.scheme, before, after)) after.meaningSeq = state.seq + 1;
      return { person, action: `Edit ${fields.join(', ')} of ${before.reference}`, changes: [{ entity: 'item', before, after }] };
    });
    return this.read(projectId, id);
  }

  /** What of an edit is to be written, where others changed the item since: refuses what both changed, with all that was said. */
  private async joinWithOthers(
    state: ProjectState,
    before: ItemValue,
    mine: Record<string, MergeValue>,
    { revision, settled }: Pick<BodyOf<typeof editItem>, 'revision' | 'settled'>,
  ): Promise<Record<string, MergeValue>> {
    if (before.revision === revision) return mine;
    const base = await this.rows.findRevision(state.id, 'item', before.id, revision);
    if (!base)
      throw new CoombError(
        'changed-meanwhile',
        `${before.reference} was changed by ${this.persons.nameOf(before.changedBy)} while you edited it. Your text is still in the editor; look at theirs before you save again.`,
        { revision: before.revision },
      );
    const holds = settled?.revision === before.revision ? settled.fields : {};
    const { changed, conflicts } = mergeEdit(valuesOf(base), valuesOf(before), mine, holds);
    if (conflicts.length === 0) return { ...changed };
    const labelOf = (name: string) => findKind(state.scheme, before.kind)?.fields.find((field) => field.id === fieldOf(name))?.label ?? NAMES[name] ?? name;
    const told = conflicts.map((conflict) => ({ ...conflict, label: labelOf(conflict.field) }));
    throw new CoombError(
      'changed-meanwhile',
      `${before.reference}: ${told.map(({ label }) => label.toLowerCase()).join(', ')} changed by ${this.persons.nameOf(before.changedBy)} as well, while you edited. Both are kept; choose what holds.`,
      { revision: before.revision, by: this.persons.nameOf(before.changedBy), conflicts: told },
    );
  }

  move(projectId: string, person: string, idOrReference: string, parent: string | null, after: string | null): Promise<{ seq: number; ids: string[] }> {
    return this.ledger.change(projectId, async (state) => {
      const item = state.items[getNode(state, idOrReference)]!;
      const parentOf = (id: string) => state.items[state.nodeOf.get(id)!]!.parentId;
      if (parent !== null) {
        const target = state.items[getNode(state, parent)]!;
        if (isWithin(parentOf, target.id, item.id)) throw new CoombError('move-refused', `${item.reference} cannot be moved below itself.`);
        if (target.collectionId !== item.collectionId)
          throw new CoombError('move-refused', `${item.reference} and ${target.reference} stand in different collections.`);
      }
      const siblings = findSiblings(state, item.collectionId, parent).filter((one) => one.id !== item.id);
      if (after !== null && !siblings.some((one) => one.id === after))
        throw new CoombError('move-refused', 'The item to stand after is not there any more. Look again and repeat the move.');
      const before = (await this.rows.findRows('item', [item.id])).get(item.id)!;
      await this.assertNotMoved(state, person, before);
      const { rank, moved } = await this.makeRoom(state, siblings, after);
      const row: ItemValue = { ...before, parentId: parent, rank, revision: before.revision + 1, changedAt: this.clock.now().toISOString(), changedBy: person };
      return { person, action: `Move ${item.reference}`, changes: [{ entity: 'item', before, after: row }, ...moved] };
    });
  }

  /** Refuses a move of what somebody else moved since it was seen. */
  private async assertNotMoved(state: ProjectState, person: string, now: ItemValue): Promise<void> {
    const base = presentBase();
    if (base === undefined || base >= state.seq) return;
    const by = (await this.rows.findChangedByOthers(state.id, [now.id], base, { person, hand: presentHand() })).get(now.id);
    if (by === undefined) return;
    const then = (await this.past.findRows(state.id, base, 'item', [now.id])).get(now.id);
    if (!then || (then.parentId === now.parentId && then.rank === now.rank && then.collectionId === now.collectionId)) return;
    const parent = now.parentId === null ? 'the top' : state.items[state.nodeOf.get(now.parentId)!]!.reference;
    throw new CoombError(
      'changed-meanwhile',
      `${now.reference} was moved by ${this.persons.nameOf(by)} since you looked: it stands below ${parent} now. Nothing was moved; look again.`,
      {
        item: now.id,
        theirs: { parent: now.parentId, rank: now.rank },
      },
    );
  }

  /** Withdraws (or restores) items; withdrawing takes all below them along, restoring brings their collections back where those are withdrawn. */
  setWithdrawn(projectId: string, person: string, ids: readonly string[], withdrawn: boolean): Promise<{ seq: number; ids: string[] }> {
    return this.ledger.change(projectId, async (state) => {
      const chosen = new Set(ids.map((id) => state.items[getNode(state, id)]!.id));
      const all = withdrawn ? withDescendants(state, chosen) : chosen;
      const rows = await this.rows.findRows('item', [...all]);
      if (withdrawn)
        await assertSeen({ rows: this.rows, persons: this.persons }, state, person, new Map([...rows.values()].map((row) => [row.id, row.reference])));
      const changes: Change[] = [...rows.values()]
        .filter((row) => row.withdrawn !== withdrawn)
        .map((before) => ({
          entity: 'item',
          before,
          after: { ...before, withdrawn, revision: before.revision + 1, changedAt: this.clock.now().toISOString(), changedBy: person },
        }));
      const name = ids.length === 1 ? rows.get([...chosen][0]!)!.reference : counted(ids.length, 'item');
      const below = changes.length - chosen.size;
      const homes = withdrawn ? [] : findWithdrawnHomes(state, changes);
      const along = homes.length === 1 ? ` with the collection ${homes[0]!.name}` : homes.length > 1 ? ` with ${homes.length} collections` : '';
      const sets = new Set(state.contents.liveSets().map((set) => set.id));
      for (const before of homes) {
        const setId = before.setId !== null && sets.has(before.setId) ? before.setId : null;
        changes.push({ entity: 'collection', before, after: { ...before, setId, withdrawn: false, revision: before.revision + 1 } });
      }
      return { person, action: `${withdrawn ? 'Withdraw' : 'Restore'} ${name}${below > 0 ? ` and ${below} below` : ''}${along}`, changes };
    });
  }

  /** What people write into fields: checked against their types, rich text cleaned. A cleared field is null, and goes. */
  private async cleanFields(scheme: Scheme, kind: string, fields: Record<string, FieldValue>): Promise<Record<string, FieldValue>> {
    checkFields(scheme, kind, fields);
    const types = new Map(getKind(scheme, kind).fields.map((field) => [field.id, field.type]));
    const clean: Record<string, FieldValue> = {};
    for (const [id, value] of Object.entries(fields))
      if (types.has(id)) clean[id] = fieldTypeOf(types.get(id)!).rich && typeof value === 'string' ? await this.html.clean(value) : value;
    return clean;
  }

  private async read(projectId: string, id: string): Promise<Item> {
    const state = await this.states.get(projectId);
    const row = (await this.rows.findRows('item', [id])).get(id)!;
    return asItem(state, state.nodeOf.get(id)!, row);
  }

  /** A rank behind `after` (or in front); when there is no room left between two ranks, all siblings are spaced anew. */
  private async makeRoom(_state: ProjectState, siblings: LightItem[], after: string | null): Promise<{ rank: number; moved: Change[] }> {
    const at = after === null ? -1 : siblings.findIndex((one) => one.id === after);
    const rank = buildRankBetween(siblings[at]?.rank, siblings[at + 1]?.rank);
    if (rank !== undefined) return { rank, moved: [] };
    const rows = await this.rows.findRows(
      'item',
      siblings.map((one) => one.id),
    );
    const moved = siblings.map((one, index): Change => {
      const before = rows.get(one.id)!;
      return { entity: 'item', before, after: { ...before, rank: (index + (index > at ? 2 : 1)) * 1024, revision: before.revision + 1 } };
    });
    return { rank: (at + 2) * 1024, moved };
  }
}

/** Present items below a parent, in order. */
export function findSiblings(state: ProjectState, collection: string, parent: string | null): LightItem[] {
  return state.items
    .filter((item) => !item.withdrawn && item.collectionId === collection && item.parentId === parent)
    .sort((a, b) => a.rank - b.rank || (a.id < b.id ? -1 : 1));
}

function withDescendants(state: ProjectState, ids: ReadonlySet<string>): Set<string> {
  const all = new Set(ids);
  const { nodes } = state.outline();
  for (const node of nodes) {
    const item = state.items[node]!;
    if (item.parentId !== null && all.has(item.parentId)) all.add(item.id);
  }
  return all;
}

function describeEdit(scheme: Scheme, before: ItemValue, after: ItemValue): string[] {
  const changed: string[] = [];
  if (before.title !== after.title) changed.push('title');
  if (before.html !== after.html) changed.push('text');
  if (before.kind !== after.kind) changed.push('kind');
  for (const field of getKind(scheme, after.kind).fields)
    if (JSON.stringify(before.fields[field.id]) !== JSON.stringify(after.fields[field.id])) changed.push(field.label.toLowerCase());
  return changed;
}

/** Whether links to the item become suspect: title, text, kind, or a field marked as meaning-bearing. */
export function changesMeaning(scheme: Scheme, before: ItemValue, after: ItemValue): boolean {
  if (before.title !== after.title || before.html !== after.html || before.kind !== after.kind) return true;
  if (JSON.stringify(before.details) !== JSON.stringify(after.details)) return true;
  return fieldsChangeMeaning(scheme, after.kind, before.fields, after.fields);
}

/** Whether a field that bears meaning says something else. */
export function fieldsChangeMeaning(scheme: Scheme, kind: string, before: ItemValue['fields'], after: ItemValue['fields']): boolean {
  return getKind(scheme, kind).fields.some(({ id, meaning }) => meaning && JSON.stringify(before[id]) !== JSON.stringify(after[id]));
}

/** Refuses a kind that new items cannot have: one that is not there, or is retired. */
export function assertOffered(scheme: Scheme, kind: string): void {
  const found = findKind(scheme, kind);
  if (!found)
    throw new CoombError(
      'input-invalid',
      `There is no kind "${kind}"; there are ${offeredKinds(scheme)
        .map((one) => one.id)
        .join(', ')}.`,
    );
  if (found.retired)
    throw new CoombError(
      'input-invalid',
      `"${found.label}" is retired: items that are of this kind stay, new ones cannot be. Take the kind back in use, or choose another.`,
    );
}

/** The collection asked for; where none is, that in which the kind is at home, else the first that makes items of it. */
function findHome(state: ProjectState, { collection: id, kind }: Pick<NewItem, 'collection' | 'kind'>): CollectionValue {
  const live = state.contents.liveCollections();
  if (id === undefined && kind === undefined) throw new CoombError('input-invalid', 'Say the collection of the new item, or its kind.');
  const home = id ?? (kind !== undefined ? findKind(state.scheme, kind)?.home : undefined);
  const found = live.find((one) => one.id === home) ?? (id === undefined ? live.find((one) => one.kind === kind) : undefined);
  if (found) return found;
  if (id !== undefined) throw new CoombError('not-found', `There is no collection ${id} in ${state.name}.`);
  throw new CoombError(
    'input-invalid',
    `Items of the kind "${kind}" have no home, and no collection makes them. Say the collection, or give the kind a home in the scheme.`,
  );
}

const NAMES: Record<string, string> = { title: 'Title', text: 'Text', kind: 'Kind', heading: 'Heading' };

/** Collections that are withdrawn, of items that come back. */
function findWithdrawnHomes(state: ProjectState, changes: readonly Change[]): CollectionValue[] {
  const homes = new Set(changes.flatMap((change) => (change.entity === 'item' ? [change.after.collectionId] : [])));
  return state.contents.collections.filter((collection) => collection.withdrawn && homes.has(collection.id));
}
