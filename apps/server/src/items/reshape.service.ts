import type { BodyOf, Item, joinItems, ReplyOf, setKinds, splitItem } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import { buildTitle, counted, findKind, type FieldValue, findLinkKind, getKind, isAllowed } from '@coomb/core';
import { plainText } from '@coomb/formats';
import { Inject, Injectable } from '@nestjs/common';
import { CLOCK, type Clock } from '../http/tokens.js';
import { assertSeen } from '../ledger/assert-seen.js';
import type { Change, ItemValue, LinkValue } from '../ledger/change.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { LedgerService } from '../changes/ledger.service.js';
import { PersonsService } from '../persons/persons.service.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { hiddenFields, keepFields } from './check-fields.js';
import { HtmlCleaner } from './clean-html.js';
import { asItem } from './item-reading.service.js';
import { getNode } from '../project-state/get-node.js';
import { assertOffered, changesMeaning, findSiblings, ItemsService } from './items.service.js';
import { joinedInto, splitFrom } from './lineage.js';

/** Makes two items of one, one of two, and others of many; links and history go along, and what happened to them is told. */
@Injectable()
export class ReshapeService {
  constructor(
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(ItemsService) private readonly items: ItemsService,
    @Inject(PersonsService) private readonly persons: PersonsService,
    @Inject(HtmlCleaner) private readonly html: HtmlCleaner,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /**
   * The first part stays the item that it is, with its reference, children and places in sources; the second becomes an item of its own after
   * it, with the same fields and a copy of every link. Nobody has confirmed the copies yet: they are suspect.
   */
  async split(projectId: string, person: string, idOrReference: string, wanted: BodyOf<typeof splitItem>): Promise<ReplyOf<typeof splitItem>> {
    let made = '';
    let links = 0;
    const { seq } = await this.ledger.change(projectId, async (state) => {
      const before = await this.findRow(state, idOrReference, wanted.revision);
      const html = await this.html.clean(wanted.html);
      const rest = await this.html.clean(wanted.rest.html);
      if (!says(rest))
        throw new CoombError('input-invalid', 'Nothing stands behind the place to split at. Put the caret before what shall be an item of its own.');
      const { row, moved } = await this.items.planCreate(state, person, {
        collection: before.collectionId,
        kind: before.kind,
        title: wanted.rest.title?.trim() || buildTitle(plainText(rest)) || before.title,
        html: rest,
        after: before.id,
      });
      const second: ItemValue = { ...row, fields: before.fields, origin: splitFrom(before.id) };
      const after = this.changed(state, person, { ...before, title: wanted.title?.trim() || before.title, html }, before);
      const copies = await this.moveLinks(state, before.id, second.id, () => true, false);
      made = second.id;
      links = copies.length;
      return {
        person,
        action: `Split ${before.reference} into ${before.reference} and ${second.reference}`,
        changes: [{ entity: 'item', before, after }, ...moved, { entity: 'item', before: null, after: second }, ...copies],
      };
    });
    return { seq, item: await this.read(projectId, made), links };
  }

  /** The other's text, links and children come to the item; the other is withdrawn and its history read with the item's from then on. */
  async join(projectId: string, person: string, idOrReference: string, wanted: BodyOf<typeof joinItems>): Promise<ReplyOf<typeof joinItems>> {
    const told: Omit<ReplyOf<typeof joinItems>, 'seq' | 'item'> = { links: 0, already: 0, children: 0, fields: [] };
    let id = '';
    const { seq } = await this.ledger.change(projectId, async (state) => {
      const before = await this.findRow(state, idOrReference, wanted.revision);
      const other = await this.findRow(state, wanted.other, wanted.otherRevision);
      id = before.id;
      assertJoinable(state, before, other);
      await assertSeen({ rows: this.rows, persons: this.persons }, state, person, new Map([[other.id, other.reference]]));
      const isSaid = other.title === before.title || plainText(other.html).replace(/\s+/g, ' ').startsWith(other.title.replace(/…$/, ''));
      const html = await this.html.clean(`${before.html}${isSaid ? '' : `<p><strong>${escapeText(other.title)}</strong></p>`}${other.html}`);
      const { fields, lost } = joinFields(state, before, other);
      const after = this.changed(state, person, { ...before, html, fields }, before);
      const standing = new Set(linksOf(state, before.id).map((link) => saysOf(state, link, before.id)));
      const moved = await this.moveLinks(
        state,
        other.id,
        before.id,
        (link) => {
          const isInner = state.graph.from[link] === state.nodeOf.get(before.id) || state.graph.to[link] === state.nodeOf.get(before.id);
          const stands = standing.has(saysOf(state, link, other.id));
          if (stands) told.already++;
          return !isInner && !stands;
        },
        true,
      );
      told.links = moved.filter(({ before: was }) => was === null).length;
      const children = await this.moveChildren(state, person, before, other);
      told.children = children.length;
      told.fields = lost;
      const gone = { ...this.changed(state, person, { ...other, withdrawn: true, origin: joinedInto(before.id) }, other), meaningSeq: other.meaningSeq };
      return {
        person,
        action: `Join ${other.reference} into ${before.reference}`,
        changes: [{ entity: 'item', before, after }, ...children, ...moved, { entity: 'item', before: other, after: gone }],
      };
    });
    return { seq, item: await this.read(projectId, id), ...told };
  }

  /** Values of fields that the new kind lacks stay with the item, hidden; links that it does not allow stay and are told as findings. */
  async setKinds(projectId: string, person: string, { items, kind }: BodyOf<typeof setKinds>): Promise<ReplyOf<typeof setKinds>> {
    let [changed, disallowed] = [0, 0];
    const { seq } = await this.ledger.change(projectId, async (state) => {
      assertOffered(state.scheme, kind);
      const ids = [...new Set(items.map((item) => state.items[getNode(state, item)]!.id))];
      const rows = [...(await this.rows.findRows('item', ids)).values()].filter((row) => row.kind !== kind && !row.heading);
      await assertSeen({ rows: this.rows, persons: this.persons }, state, person, new Map(rows.map((row) => [row.id, row.reference])));
      const changes = rows.map((before): Change => {
        const fields = { ...hiddenFields(state.scheme, kind, before.fields), ...keepFields(state.scheme, kind, before.fields) };
        return { entity: 'item', before, after: this.changed(state, person, { ...before, kind, fields }, before) };
      });
      changed = changes.length;
      disallowed = countDisallowed(state, new Set(rows.map((row) => row.id)), kind);
      const label = findKind(state.scheme, kind)!.label.toLowerCase();
      return { person, action: rows.length === 1 ? `Make ${rows[0]!.reference} a ${label}` : `Make ${counted(rows.length, 'item')} ${label}`, changes };
    });
    return { seq, changed, disallowed };
  }

  private async findRow(state: ProjectState, idOrReference: string, revision: number): Promise<ItemValue> {
    const { id } = state.items[getNode(state, idOrReference)]!;
    const row = (await this.rows.findRows('item', [id])).get(id)!;
    if (row.withdrawn) throw new CoombError('changed-meanwhile', `${row.reference} is withdrawn. Restore it first.`, { revision: row.revision });
    if (row.revision !== revision)
      throw new CoombError(
        'changed-meanwhile',
        `${row.reference} was changed by ${this.persons.nameOf(row.changedBy)} since you looked. Look at it again, then repeat.`,
        {
          revision: row.revision,
        },
      );
    return row;
  }

  private changed(state: ProjectState, person: string, after: ItemValue, before: ItemValue): ItemValue {
    const next = { ...after, revision: before.revision + 1, changedAt: this.clock.now().toISOString(), changedBy: person };
    return changesMeaning(state.scheme, before, next) ? { ...next, meaningSeq: state.seq + 1 } : next;
  }

  /** Links of one item as links of another, those that are wanted; with `away`, every one that is there goes. */
  private async moveLinks(state: ProjectState, from: string, to: string, isWanted: (link: number) => boolean, away: boolean): Promise<Change[]> {
    const links = linksOf(state, from);
    const rows = await this.rows.findRows(
      'link',
      links.map((link) => state.linkIds.at(link)),
    );
    const now = this.clock.now().toISOString();
    return links.flatMap((link): Change[] => {
      const row = rows.get(state.linkIds.at(link))!;
      const copy: LinkValue = {
        ...row,
        id: this.clock.newId(),
        revision: 1,
        fromId: row.fromId === from ? to : row.fromId,
        toId: row.toId === from ? to : row.toId,
        // A usage is a path down to the one item: it says nothing of the other.
        fromUsage: row.fromId === from ? null : row.fromUsage,
        toUsage: row.toId === from ? null : row.toUsage,
        confirmedBy: row.confirmedBy,
        confirmedAt: row.confirmedAt ?? now,
      };
      return [
        ...(isWanted(link) ? [{ entity: 'link', before: null, after: copy } as const] : []),
        ...(away ? [{ entity: 'link', before: row, after: { ...row, withdrawn: true, revision: row.revision + 1 } } as const] : []),
      ];
    });
  }

  /** What stood below the one stands below the other, behind what stands there. */
  private async moveChildren(state: ProjectState, person: string, to: ItemValue, from: ItemValue): Promise<Change[]> {
    const own = findSiblings(state, to.collectionId, to.id);
    const children = findSiblings(state, from.collectionId, from.id).filter(({ id }) => id !== to.id);
    const rows = await this.rows.findRows(
      'item',
      children.map(({ id }) => id),
    );
    let rank = own.at(-1)?.rank ?? 0;
    return children.map(({ id }): Change => {
      const before = rows.get(id)!;
      rank += 1024;
      return { entity: 'item', before, after: this.changed(state, person, { ...before, parentId: to.id, rank }, before) };
    });
  }

  private async read(projectId: string, id: string): Promise<Item> {
    const state = await this.states.get(projectId);
    return asItem(state, state.nodeOf.get(id)!, (await this.rows.findRows('item', [id])).get(id)!);
  }
}

const says = (html: string) => plainText(html) !== '' || /<(?:img|math)\b/.test(html);
const escapeText = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

function linksOf(state: ProjectState, id: string): number[] {
  const node = state.nodeOf.get(id)!;
  return [...state.graph.findLinks(node, 'out'), ...state.graph.findLinks(node, 'in')];
}

/** What a link says seen from one of its ends: two that say the same are one. */
function saysOf(state: ProjectState, link: number, id: string): string {
  const node = state.nodeOf.get(id)!;
  const isFrom = state.graph.from[link] === node;
  const usage = state.linkUsage(link);
  return [state.graph.kind[link], isFrom, isFrom ? state.graph.to[link] : state.graph.from[link], (isFrom ? usage?.to : usage?.from) ?? ''].join(' ');
}

function assertJoinable(state: ProjectState, item: ItemValue, other: ItemValue): void {
  if (item.id === other.id) throw new CoombError('input-invalid', `${item.reference} cannot be joined with itself.`);
  if (item.heading !== other.heading) throw new CoombError('input-invalid', 'A section and an item cannot become one.');
  if (item.kind !== other.kind && !item.heading)
    throw new CoombError(
      'input-invalid',
      `${item.reference} is a ${getKind(state.scheme, item.kind).label.toLowerCase()} and ${other.reference} a ${getKind(state.scheme, other.kind).label.toLowerCase()}. Make them of one kind first.`,
    );
  for (let up = other.parentId === null ? undefined : state.items[state.nodeOf.get(other.parentId)!]; up; ) {
    if (up.id === item.id) return;
    up = up.parentId === null ? undefined : state.items[state.nodeOf.get(up.parentId)!];
  }
  for (let up = item.parentId === null ? undefined : state.items[state.nodeOf.get(item.parentId)!]; up; ) {
    if (up.id === other.id) throw new CoombError('input-invalid', `${item.reference} stands below ${other.reference}. Join it the other way round.`);
    up = up.parentId === null ? undefined : state.items[state.nodeOf.get(up.parentId)!];
  }
}

/** Fields that only the other says are taken over; where both say something else, the item's own stays and the other's is told. */
function joinFields(state: ProjectState, item: ItemValue, other: ItemValue): { fields: Record<string, FieldValue>; lost: { label: string; value: string }[] } {
  const fields = { ...item.fields };
  const lost: { label: string; value: string }[] = [];
  for (const [id, value] of Object.entries(other.fields)) {
    const own = fields[id];
    if (own === undefined || own === null || own === '') fields[id] = value;
    else if (JSON.stringify(own) !== JSON.stringify(value))
      lost.push({
        label: getKind(state.scheme, item.kind).fields.find((field) => field.id === id)?.label ?? id,
        value: typeof value === 'string' ? plainText(value) : String(value),
      });
  }
  return { fields, lost };
}

function countDisallowed(state: ProjectState, ids: ReadonlySet<string>, kind: string): number {
  const found = new Set<number>();
  for (const id of ids)
    for (const link of linksOf(state, id)) {
      const kindOf = (node: number) => (ids.has(state.items[node]!.id) ? kind : state.items[node]!.kind);
      const linkKind = findLinkKind(state.scheme, state.scheme.linkKinds[state.graph.kind[link]!]?.id ?? '');
      if (linkKind && !isAllowed(linkKind, kindOf(state.graph.from[link]!), kindOf(state.graph.to[link]!))) found.add(link);
    }
  return found.size;
}
