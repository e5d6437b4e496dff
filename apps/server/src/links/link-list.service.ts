import type { ListedLink, queryLinks, ReplyOf } from '@coomb/contract';
import { Inject, Injectable } from '@nestjs/common';
import { whileAt } from '../http/caller.js';
import { ItemFactsKeeper } from '../items/item-facts.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { PersonsService } from '../persons/persons.service.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { LensesService } from '../lenses/lenses.service.js';
import { buildLinkList, type LinkListWish, type Listed } from './build-link-list.js';
import { type LinkFacts, LinkFactsKeeper } from '../link-rows/link-facts.js';

/** Rows that are read at once for a file. */
const BLOCK = 500;

type Reply = ReplyOf<typeof queryLinks>;

/** Every link of a project as a list: filtered, grouped and sorted here, shown in windows. */
@Injectable()
export class LinkListService {
  /** The order that was made last of each project: windows of one list are asked for one after the other. */
  private readonly last = new WeakMap<ProjectState, { of: string; list: Listed }>();

  constructor(
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(LinkFactsKeeper) private readonly facts: LinkFactsKeeper,
    @Inject(ItemFactsKeeper) private readonly itemFacts: ItemFactsKeeper,
    @Inject(LensesService) private readonly lenses: LensesService,
    @Inject(PersonsService) private readonly persons: PersonsService,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
  ) {}

  async query(projectId: string, { offset, limit, ...wish }: LinkListWish): Promise<Reply> {
    const state = await this.states.get(projectId);
    const facts = await this.facts.find(state);
    const list = await this.list(state, facts, wish);
    const shown = [...list.order.subarray(offset, offset + limit)];
    const rows = await this.rows.findRows(
      projectId,
      'link',
      shown.map((link) => state.linkIds.at(link)),
    );
    const { all, total, groups, counts } = list;
    const say = (usage: string | null | undefined) => (usage ? state.usages.say(usage) : null);
    return {
      ...{ seq: state.seq, all, total, groups, counts, offset },
      rows: shown.flatMap((link): ListedLink[] => {
        const row = rows.get(state.linkIds.at(link));
        if (!row) return [];
        const { id, revision, kind, origin, confirmedBy, confirmedAt, fromUsage, toUsage, fields } = row;
        return [
          {
            ...{ id, revision, kind, origin, fields, suspect: state.graph.isSuspect(link), person: confirmedBy, at: new Date(confirmedAt).toISOString() },
            ...{ from: state.brief(state.graph.from[link]!), to: state.brief(state.graph.to[link]!), fromUse: say(fromUsage), toUse: say(toUsage) },
          },
        ];
      }),
    };
  }

  /** In the order of the list. */
  async findIds(projectId: string, wish: Omit<LinkListWish, 'offset' | 'limit'>): Promise<string[]> {
    const state = await this.states.get(projectId);
    const { order } = await this.list(state, await this.facts.find(state), wish);
    return Array.from(order, (link) => state.linkIds.at(link));
  }

  /** Head and rows of a file, read block by block as of the moment at which it begins. Refuses before the first of them where there is no such list. */
  async *rowsOf(projectId: string, wish: Omit<LinkListWish, 'offset' | 'limit'>): AsyncGenerator<string[]> {
    const { scheme, seq } = await this.states.get(projectId);
    const read = async (offset: number) => {
      const of = { ...wish, offset, limit: BLOCK };
      const block = await this.query(projectId, of);
      // What comes in meanwhile would move rows over the edges of blocks.
      return (await this.states.get(projectId)).seq === seq ? block : whileAt(seq, () => this.query(projectId, of));
    };
    let block = await read(0);
    yield ['From', 'Title', 'Kind', 'reads', 'To', 'Title', 'Kind', 'From in use', 'To in use', 'Suspect', 'Origin', 'Confirmed by', 'On', 'Fields', 'Link'];
    const labelOf = new Map(scheme.kinds.map(({ id, label }) => [id, label]));
    const kindOf = new Map(scheme.linkKinds.map((kind) => [kind.id, kind]));
    for (let offset = BLOCK; ; offset += BLOCK) {
      const { rows, total } = block;
      for (const { id, from, to, kind, fromUse, toUse, suspect, origin, person, at, fields } of rows) {
        const own = kindOf.get(kind);
        const said = Object.entries(fields).map(([field, value]) => `${own?.fields?.find((one) => one.id === field)?.label ?? field}: ${String(value)}`);
        const ends = [
          from.reference,
          from.title,
          labelOf.get(from.kind) ?? from.kind,
          own?.phrase ?? kind,
          to.reference,
          to.title,
          labelOf.get(to.kind) ?? to.kind,
        ];
        yield [...ends, fromUse ?? '', toUse ?? '', suspect ? 'yes' : 'no', origin, this.persons.nameOf(person), at.slice(0, 10), said.join('; '), id];
      }
      if (offset >= total) return;
      block = await read(offset);
    }
  }

  private async list(state: ProjectState, facts: LinkFacts, wish: Omit<LinkListWish, 'offset' | 'limit'>): Promise<Listed> {
    const nameOf = (person: string) => this.persons.nameOf(person);
    const of = JSON.stringify([state.seq, state.day, wish, facts.persons.map(nameOf)]);
    const known = this.last.get(state);
    if (known?.of === of) return known.list;
    const fields = wish.field ? (await this.itemFacts.find(state)).fields : undefined;
    const seen = wish.lens ? await this.lenses.seen(state, wish.lens) : undefined;
    const list = buildLinkList(state, { facts, nameOf, ...(fields && { fields }), ...(seen && { seen }) }, wish);
    this.last.set(state, { of, list });
    return list;
  }
}
