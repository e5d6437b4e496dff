import { type ComparedRow, type ComparingAsked, CoombError, type compareMoments, type ReplyOf } from '@coomb/contract';
import { findLinkKind } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import type { ItemValue, LinkValue } from '../ledger/change.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { PastRepo } from '../ledger/past.repo.js';
import { LensesService } from '../lenses/lenses.service.js';
import { PersonsService } from '../persons/persons.service.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { becameOfItem, becameOfLink, type Did, didOf, itemParts, linkParts } from './compare-rows.js';

interface Compared {
  entity: 'item' | 'link';
  did: Did;
  /** Node of the item, or of the end of a link that is read first. */
  node: number;
  id: string;
  last: { seq: number; person: string; at: string };
  item?: { was: ItemValue | undefined; is: ItemValue | undefined };
  link?: { was: LinkValue | undefined; is: LinkValue | undefined };
}

const didWords = { came: 'Came', went: 'Went', changed: 'Changed', moved: 'Moved' };
const didOrder: Did[] = ['came', 'changed', 'moved', 'went'];

/** What is different between an earlier moment and the one that is looked at. */
@Injectable()
export class ComparingService {
  private readonly known = new WeakMap<ProjectState, { of: string; all: Promise<readonly Compared[]> }>();

  constructor(
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(PastRepo) private readonly past: PastRepo,
    @Inject(LedgerReader) private readonly reader: LedgerReader,
    @Inject(LensesService) private readonly lenses: LensesService,
    @Inject(PersonsService) private readonly persons: PersonsService,
  ) {}

  async compare(projectId: string, asked: ComparingAsked, offset: number, most: number): Promise<ReplyOf<typeof compareMoments>> {
    const state = await this.states.get(projectId);
    const { since } = asked;
    if (since > state.seq)
      throw new CoombError(
        'input-invalid',
        `Change ${since} is later than change ${state.seq}, which is looked at. Compare with an earlier moment, or look at a later one.`,
      );
    const [from, to] = await Promise.all([this.past.findMoment(projectId, since), this.past.findMoment(projectId, state.seq)]);
    if (!from || !to) throw new CoombError('not-found', `There is no change ${since} in this project.`);
    const all = await this.compareAll(state, since);
    const seen = asked.lens ? await this.lenses.seen(state, asked.lens) : undefined;
    const inLens = all.filter((row) => !seen || this.endsOf(state, row).some((node) => seen[node]));
    const count = (entity: 'item' | 'link') => {
      const counts = { came: 0, went: 0, changed: 0, moved: 0 };
      for (const row of inLens) if (row.entity === entity) counts[row.did]++;
      return counts;
    };
    const persons = new Map<string, number>();
    for (const { last } of inLens) persons.set(last.person, (persons.get(last.person) ?? 0) + 1);
    const among = asked.among === undefined ? undefined : new Set(asked.among.split(','));
    const labelOf = this.groupOf(state, asked.group);
    const { rowOf } = state.outline();
    const wanted = inLens
      .filter(
        ({ entity, did, last, id }) =>
          (!asked.entity || entity === asked.entity) &&
          (!asked.did || did === asked.did) &&
          (!asked.person || last.person === asked.person) &&
          (!among || among.has(id)),
      )
      .map((row) => ({ row, label: labelOf(row) }));
    wanted.sort(
      (a, b) =>
        a.label.rank - b.label.rank ||
        (rowOf[a.row.node] ?? -1) - (rowOf[b.row.node] ?? -1) ||
        Number(a.row.entity === 'link') - Number(b.row.entity === 'link') ||
        a.row.node - b.row.node,
    );
    const groups: { label: string; count: number }[] = [];
    for (const { label } of wanted) {
      if (groups.at(-1)?.label === label.says) groups.at(-1)!.count++;
      else groups.push({ label: label.says, count: 1 });
    }
    return {
      from: { seq: since, at: new Date(from.at).toISOString() },
      to: { seq: state.seq, at: new Date(to.at).toISOString() },
      ...{ items: count('item'), links: count('link'), total: wanted.length, groups },
      persons: [...persons].map(([person, number]) => ({ person, count: number })).sort((a, b) => b.count - a.count || a.person.localeCompare(b.person)),
      rows: wanted.slice(offset, offset + most).map(({ row, label }) => this.tell(state, row, label.says)),
    };
  }

  /** Read once for two moments: its rows are asked for page by page. */
  private async compareAll(state: ProjectState, since: number): Promise<readonly Compared[]> {
    const of = `${since} ${state.seq}`;
    const known = this.known.get(state);
    if (known?.of === of) return known.all;
    const all = Promise.all([this.compareItems(state, since), this.compareLinks(state, since)]).then((parts) => parts.flat());
    this.known.set(state, { of, all });
    all.catch(() => this.known.delete(state));
    return all;
  }

  private async compareItems(state: ProjectState, since: number): Promise<Compared[]> {
    const then = await this.past.findChangedLater(state.id, { seq: since, last: state.seq }, 'item', ['exchanged']);
    const now = await this.reader.findRows(state.id, 'item', [...then.keys()]);
    const last = await this.findLast(state, since, 'item');
    return [...then].flatMap(([id, was]): Compared[] => {
      const [is, node, change] = [now.get(id), state.nodeOf.get(id), last.get(id)];
      const did = didOf(was, is, becameOfItem);
      if (!did || node === undefined || !change) return [];
      return [
        { entity: 'item', did, node, id, last: change, item: { was: did === 'came' ? undefined : (was ?? undefined), is: did === 'went' ? undefined : is } },
      ];
    });
  }

  private async compareLinks(state: ProjectState, since: number): Promise<Compared[]> {
    const then = await this.past.findChangedLater(state.id, { seq: since, last: state.seq }, 'link');
    const now = await this.reader.findRows(state.id, 'link', [...then.keys()]);
    const last = await this.findLast(state, since, 'link');
    return [...then].flatMap(([id, was]): Compared[] => {
      const [is, change] = [now.get(id), last.get(id)];
      const did = didOf(was, is, becameOfLink);
      const node = state.nodeOf.get((did === 'went' ? was : is)?.fromId ?? '');
      if (!did || node === undefined || !change) return [];
      return [
        { entity: 'link', did, node, id, last: change, link: { was: did === 'came' ? undefined : (was ?? undefined), is: did === 'went' ? undefined : is } },
      ];
    });
  }

  /** Who had the last hand in what, by the names that they have today. */
  private async findLast(state: ProjectState, since: number, entity: 'item' | 'link') {
    const last = await this.past.findLastChanges(state.id, since, state.seq, entity);
    return new Map([...last].map(([id, change]) => [id, { ...change, person: this.persons.nameOf(change.person) }]));
  }

  private endsOf(state: ProjectState, { node, link }: Compared): number[] {
    const other = link && state.nodeOf.get((link.is ?? link.was)!.toId);
    return other === undefined ? [node] : [node, other];
  }

  private groupOf(state: ProjectState, group: ComparingAsked['group']): (row: Compared) => { rank: number; says: string } {
    if (group === 'did') return ({ did }) => ({ rank: didOrder.indexOf(did), says: didWords[did] });
    const ranks = new Map<string, number>();
    const ranked = (says: string, rank = ranks.get(says) ?? ranks.size) => {
      ranks.set(says, rank);
      return { rank, says };
    };
    if (group === 'person') return ({ last }) => ranked(last.person);
    if (group === 'change') return ({ last }) => ({ rank: last.seq, says: `Change ${last.seq} · ${last.person}` });
    const { rowOf } = state.outline();
    const names = new Map(state.contents.collections.map(({ id, name }) => [id, name]));
    return ({ node }) => {
      const item = state.items[node]!;
      let top = item.parentId === null ? (item.heading ? node : undefined) : state.nodeOf.get(item.parentId);
      for (let up = top; up !== undefined && state.items[up]!.parentId !== null; ) {
        up = state.nodeOf.get(state.items[up]!.parentId!);
        top = up;
      }
      const collection = names.get(item.collectionId) ?? '';
      const rank = rowOf[top ?? node] ?? Number.MAX_SAFE_INTEGER;
      return { rank: item.withdrawn ? Number.MAX_SAFE_INTEGER : rank, says: top === undefined ? collection : `${collection} · ${state.items[top]!.title}` };
    };
  }

  private tell(state: ProjectState, row: Compared, group: string): ComparedRow {
    const { scheme } = state;
    const { entity, did, item, link, last } = row;
    const nameOf = (id: string) => {
      const node = state.nodeOf.get(id);
      return node === undefined ? '' : `${state.items[node]!.reference} ${state.items[node]!.title}`;
    };
    const names = new Map(state.contents.collections.map(({ id, name }) => [id, name]));
    const placeOf = ({ parentId, collectionId }: ItemValue) => (parentId === null ? (names.get(collectionId) ?? '') : nameOf(parentId));
    const end = link && (link.is ?? link.was)!;
    const other = end && state.nodeOf.get(end.toId);
    return {
      ...{ entity, did, group, item: state.brief(row.node) },
      phrase: end ? (findLinkKind(scheme, end.kind)?.phrase ?? end.kind) : null,
      other: other === undefined ? null : state.brief(other),
      parts: item ? itemParts(scheme, item.was, item.is, placeOf) : link?.was && link.is ? linkParts(scheme, link.was, link.is, nameOf) : [],
      ...{ seq: last.seq, person: last.person, at: new Date(last.at).toISOString() },
    };
  }
}
