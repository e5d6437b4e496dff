import { type BodyOf, CoombError, type ReplyOf, type WrittenCell, type writeCells } from '@coomb/contract';
import { counted, fieldTypeOf, findLinkKind, getKind, groupBy, isNoValue, isUseWithin } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { LedgerService } from '../changes/ledger.service.js';
import { presentBase, presentHand } from '../http/caller.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import { checkFields, hiddenFields, keepFields } from '../items/check-fields.js';
import { HtmlCleaner } from '../items/clean-html.js';
import { changesMeaning, fieldsChangeMeaning } from '../items/items.service.js';
import type { Change, ItemValue, LinkValue, UsageValue } from '../ledger/change.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { PastRepo } from '../ledger/past.repo.js';
import { PersonsService } from '../persons/persons.service.js';
import { LinksService } from '../links/links.service.js';
import { getNode } from '../project-state/get-node.js';
import type { ProjectState } from '../project-state/project-state.js';
import { UsageFinder } from '../link-rows/usage-finder.js';

type Wish = NonNullable<BodyOf<typeof writeCells>>;
type Outcome = ReplyOf<typeof writeCells>;
/** A cell with its place among those that were written. */
type Placed = WrittenCell & { place: number };

const MOST_TITLE = 500;

/** Writes many cells as one batch: titles, fields, and what items are linked with. */
@Injectable()
export class CellsService {
  constructor(
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(LinksService) private readonly links: LinksService,
    @Inject(PastRepo) private readonly past: PastRepo,
    @Inject(PersonsService) private readonly persons: PersonsService,
    @Inject(HtmlCleaner) private readonly html: HtmlCleaner,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** Refuses, unless told to skip them, where any cell cannot be written so. A dry run says what would become of each and changes nothing. */
  async write(projectId: string, person: string, { cells, dryRun, skipRefused }: Wish): Promise<Outcome> {
    const outcome: Outcome = { seq: 0, ids: [], changed: 0, refused: [] };
    const made = await this.ledger.change(projectId, async (state) => {
      outcome.seq = state.seq;
      const changes: Change[] = [];
      const placed = cells.map((cell, place) => ({ ...cell, place }));
      const refuse = (cell: number, says: string) => void outcome.refused.push({ cell, says });
      const rows = await this.rows.findRows('item', [...new Set(cells.map(({ item }) => item))]);
      const changed = new Set<number>();
      const isOverwritten = await this.findOverwritten(state, person, rows);
      for (const [id, own] of groupBy(placed, ({ item }) => item)) {
        const before = rows.get(id);
        if (!before || before.projectId !== projectId || before.withdrawn) {
          for (const { place } of own) refuse(place, before ? `${before.reference} is withdrawn` : 'The item is not there any more');
          continue;
        }
        let after = before;
        for (const cell of own) {
          if (cell.column.sort === 'links' || cell.use) continue;
          const by = isOverwritten(before, cell.column);
          if (by !== undefined) {
            refuse(cell.place, `${before.reference}: ${by} wrote something else here meanwhile`);
            continue;
          }
          const next = await this.writeOwn(state, after, cell);
          if (typeof next === 'string') refuse(cell.place, next);
          else if (next !== after) {
            after = next;
            changed.add(cell.place);
          }
        }
        if (after === before) continue;
        const whole = { ...after, revision: before.revision + 1, changedAt: this.clock.now().toISOString(), changedBy: person };
        if (changesMeaning(state.scheme, before, whole)) whole.meaningSeq = state.seq + 1;
        changes.push({ entity: 'item', before, after: whole });
      }
      const isThere = ({ item }: Placed) => rows.get(item)?.withdrawn === false && rows.get(item)?.projectId === projectId;
      const usages = new UsageFinder(state, this.clock.newId);
      const used = placed.filter((cell) => cell.use && cell.column.sort !== 'links' && isThere(cell));
      const inUses = await this.writeInUses(state, person, used, usages, rows, refuse, changed);
      const linked = placed.filter((cell) => cell.column.sort === 'links' && isThere(cell));
      if (linked.length > 0) changes.push(...(await this.writeLinks(state, person, linked, usages, refuse, changed)));
      // A use that is made for what was written in it is made with that; one that links need stands by itself.
      changes.push(...inUses, ...usages.made.filter(({ after }) => !inUses.some((one) => one.after.id === after.id)));
      outcome.changed = changed.size;
      outcome.refused.sort((a, b) => a.cell - b.cell);
      if (outcome.refused.length > 0 && !skipRefused && !dryRun)
        throw new CoombError(
          'input-invalid',
          `${counted(outcome.refused.length, 'cell')} cannot be written so: ${outcome.refused
            .slice(0, 3)
            .map(({ says }) => says)
            .join('; ')}.`,
          { refused: outcome.refused },
        );
      const [first] = cells;
      const action = cells.length === 1 ? `Write in ${rows.get(first!.item)?.reference ?? 'a cell'}` : `Write ${counted(changed.size, 'cell')}`;
      return { person, action, changes: dryRun ? [] : changes };
    });
    return { ...outcome, seq: Math.max(outcome.seq, made.seq), ids: made.ids };
  }

  /** Says who wrote another value into a cell since whoever writes had looked; two people never overwrite each other. */
  private async findOverwritten(state: ProjectState, person: string, rows: ReadonlyMap<string, ItemValue>) {
    const base = presentBase();
    if (base === undefined || base >= state.seq) return () => undefined;
    const by = await this.rows.findChangedByOthers(state.id, [...rows.keys()], base, { person, hand: presentHand() });
    const then = by.size > 0 ? await this.past.findRows(state.id, base, 'item', [...by.keys()]) : new Map<string, ItemValue>();
    return (item: ItemValue, column: Placed['column']): string | undefined => {
      const [other, old] = [by.get(item.id), then.get(item.id)];
      if (other === undefined || !old) return undefined;
      const said = (one: ItemValue) => (column.sort === 'title' ? one.title : column.sort === 'field' ? (one.fields[column.field] ?? null) : null);
      return JSON.stringify(said(old)) === JSON.stringify(said(item)) ? undefined : this.persons.nameOf(other);
    };
  }

  /** The item with the cell written; the same where that says nothing new; words where it cannot be. */
  private async writeOwn(state: ProjectState, item: ItemValue, { column, text }: Placed): Promise<ItemValue | string> {
    if (column.sort === 'title') {
      const title = text.trim().replace(/\s+/g, ' ');
      if (title === '') return `${item.reference} needs a title`;
      if (title.length > MOST_TITLE) return `${item.reference}: a title has at most ${MOST_TITLE} letters`;
      return title === item.title ? item : { ...item, title };
    }
    if (column.sort !== 'field') return item;
    const field = item.heading ? undefined : getKind(state.scheme, item.kind).fields.find((one) => one.id === column.field);
    if (!field) return `${item.reference} has no such field`;
    const type = fieldTypeOf(field.type);
    const { value, problem } = text.trim() === '' ? { value: null } : type.read(text.trim(), field);
    if (problem) return `${item.reference}: ${problem}`;
    const cleaned = type.rich && typeof value === 'string' ? await this.html.clean(value) : value;
    try {
      checkFields(state.scheme, item.kind, { [field.id]: cleaned });
    } catch (refusal) {
      if (refusal instanceof CoombError) return `${item.reference}: ${refusal.message.replace(/^fields\.[^:]*: /, '')}`;
      throw refusal;
    }
    const fields = { ...item.fields, [field.id]: cleaned };
    const kept = { ...hiddenFields(state.scheme, item.kind, fields), ...keepFields(state.scheme, item.kind, fields) };
    return JSON.stringify(kept[field.id] ?? null) === JSON.stringify(item.fields[field.id] ?? null) ? item : { ...item, fields: kept };
  }

  /** A cell of links names all that the item is to be linked with: what is named is linked, what is named no more is not. */
  private async writeLinks(
    state: ProjectState,
    person: string,
    cells: readonly Placed[],
    usages: UsageFinder,
    refuse: (cell: number, says: string) => void,
    changed: Set<number>,
  ): Promise<Change[]> {
    const planned: { place: number; made: Change[]; gone: number[] }[] = [];
    for (const { item, column, text, place, use } of cells) {
      if (column.sort !== 'links') continue;
      const node = getNode(state, item);
      const kind = state.scheme.linkKinds.findIndex(({ id }) => id === column.linkKind);
      if (kind < 0 || !findLinkKind(state.scheme, column.linkKind)) {
        refuse(place, `There are no links of the kind “${column.linkKind}”`);
        continue;
      }
      const isFrom = column.end === 'from';
      const wanted = new Set<number>();
      const unknown = text.split(/[\s,;]+/).filter((reference) => {
        if (!reference) return false;
        const other = findNode(state, reference);
        if (other !== undefined) wanted.add(other);
        return other === undefined;
      });
      if (unknown.length > 0) {
        refuse(place, `There is no ${unknown.slice(0, 3).join(', no ')}`);
        continue;
      }
      const usageOf = (link: number) => state.linkUsage(link)?.[column.end] ?? null;
      const holds = (link: number) => {
        const usage = usageOf(link);
        return !use || usage === null || isUseWithin(use, state.usages.pathOf(usage));
      };
      const standing = state.graph.findLinks(node, isFrom ? 'out' : 'in', kind).filter(holds);
      const otherOf = (link: number) => (isFrom ? state.graph.to[link]! : state.graph.from[link]!);
      try {
        const made = [...wanted]
          .filter((other) => !standing.some((link) => otherOf(link) === other))
          .map((other): Change => {
            const [from, to] = isFrom ? [node, other] : [other, node];
            const ends = { from: state.items[from]!.id, to: state.items[to]!.id };
            const wish = { linkKind: column.linkKind, ...ends, ...(use && { [isFrom ? 'fromUsage' : 'toUsage']: use }) };
            return { entity: 'link', before: null, after: this.links.build(state, person, wish, 'made', usages) };
          });
        const gone = standing.filter((link) => state.isPresent(otherOf(link)) && !wanted.has(otherOf(link)));
        const wider = use && gone.find((link) => (state.usages.pathOf(usageOf(link) ?? '').length || 0) < use.length);
        if (wider !== undefined) {
          const other = state.items[otherOf(wider)]!.reference;
          refuse(place, `The link with ${other} does not hold in this use alone: take it away where items are rows`);
          continue;
        }
        if (made.length + gone.length > 0) planned.push({ place, made, gone });
      } catch (refusal) {
        if (!(refusal instanceof CoombError)) throw refusal;
        refuse(place, refusal.message.replace(/\.$/, ''));
      }
    }
    const idsOf = (links: readonly number[]) => links.map((link) => state.linkIds.at(link));
    const base = presentBase();
    // A link that somebody else made or changed since whoever writes had looked is not taken away.
    const gone = planned.flatMap((one) => idsOf(one.gone));
    const others = base === undefined ? new Map<string, string>() : await this.rows.findChangedByOthers(state.id, gone, base, { person, hand: presentHand() });
    const links = await this.rows.findRows('link', gone);
    const changes: Change[] = [];
    // Two cells may say the same link, from either end.
    const said = new Set<string>();
    for (const { place, made, gone: removed } of planned) {
      const by = idsOf(removed).flatMap((id) => others.get(id) ?? [])[0];
      if (by !== undefined) {
        refuse(place, `${this.persons.nameOf(by)} linked something else here meanwhile`);
        continue;
      }
      changed.add(place);
      for (const one of made) {
        const { kind, fromId, toId, fromUsage, toUsage } = one.after as LinkValue;
        const says = `${kind} ${fromId} ${toId} ${fromUsage} ${toUsage}`;
        if (!said.has(says)) changes.push(one);
        said.add(says);
      }
      for (const id of idsOf(removed)) {
        const before = links.get(id)!;
        changes.push({ entity: 'link', before, after: { ...before, withdrawn: true, revision: before.revision + 1 } });
      }
    }
    return changes;
  }

  /** Fields as they are in one use only; the value that the item has anywhere is none of its own. */
  private async writeInUses(
    state: ProjectState,
    person: string,
    cells: readonly Placed[],
    usages: UsageFinder,
    rows: ReadonlyMap<string, ItemValue>,
    refuse: (cell: number, says: string) => void,
    changed: Set<number>,
  ): Promise<Change[]> {
    const changes: Change[] = [];
    const base = presentBase();
    for (const [, own] of groupBy(cells, ({ use }) => use!.join(' '))) {
      const item = rows.get(own[0]!.item)!;
      const path = own[0]!.use!;
      const standing = state.usages.find(path);
      const before = standing?.fields ?? {};
      const others =
        standing && base !== undefined ? await this.rows.findChangedByOthers(state.id, [standing.id], base, { person, hand: presentHand() }) : undefined;
      const by = standing && others?.get(standing.id);
      if (by !== undefined) {
        for (const { place } of own) refuse(place, `${item.reference}: ${this.persons.nameOf(by)} wrote something else of this use meanwhile`);
        continue;
      }
      const whole = { ...item, fields: { ...item.fields, ...state.usages.fieldsIn(path) } };
      let after = whole;
      for (const cell of own) {
        const next =
          cell.column.sort === 'title'
            ? `${item.reference} is called so wherever it is used: write it where items are rows`
            : await this.writeOwn(state, after, cell);
        if (typeof next === 'string') refuse(cell.place, next);
        else if (next !== after) {
          after = next;
          changed.add(cell.place);
        }
      }
      if (after === whole) continue;
      const said = own.flatMap(({ column }) => (column.sort === 'field' ? [column.field] : []));
      const wanted = { ...before, ...Object.fromEntries(said.map((field) => [field, after.fields[field] ?? null])) };
      const fields = Object.fromEntries(
        Object.entries(wanted).filter(([field, value]) => !isNoValue(value) && JSON.stringify(value) !== JSON.stringify(item.fields[field] ?? null)),
      );
      try {
        const id = usages.find(item, path)!;
        const made = usages.made.find((one) => one.after.id === id)?.after as UsageValue | undefined;
        const meaningSeq = fieldsChangeMeaning(state.scheme, item.kind, before, fields) ? state.seq + 1 : (standing?.meaningSeq ?? made?.meaningSeq ?? 0);
        changes.push(
          standing
            ? { entity: 'usage', before: standing, after: { ...standing, fields, meaningSeq, revision: standing.revision + 1 } }
            : { entity: 'usage', before: null, after: { ...made!, fields, meaningSeq } },
        );
      } catch (refusal) {
        if (!(refusal instanceof CoombError)) throw refusal;
        for (const { place } of own) {
          changed.delete(place);
          refuse(place, refusal.message.replace(/\.$/, ''));
        }
      }
    }
    return changes;
  }
}

function findNode(state: ProjectState, reference: string): number | undefined {
  try {
    const node = getNode(state, reference);
    return state.isPresent(node) ? node : undefined;
  } catch {
    return undefined;
  }
}
