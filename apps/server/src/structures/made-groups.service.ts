import { type BodyOf, CoombError, type makeGroups, type ReplyOf } from '@coomb/contract';
import { buildReference, counted, findLinkKind, getKind, isAllowed } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { LedgerService } from '../changes/ledger.service.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import { assertOffered, ItemsService } from '../items/items.service.js';
import type { Change, ItemValue } from '../ledger/change.js';
import { buildLink } from '../link-rows/build-link.js';
import { getNode } from '../project-state/get-node.js';

type Wish = NonNullable<BodyOf<typeof makeGroups>>;

/** Ranks of neighbours lie so far apart that others find room between them. */
const STEP = 1024;

/** Turns proposed groups into items and what they hold into links with them. */
@Injectable()
export class MadeGroupsService {
  constructor(
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(ItemsService) private readonly items: ItemsService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** Refuses where nothing could be linked at all; single items that may not be linked so are told and left out. */
  async make(projectId: string, person: string, { kind, linkKind, reversed, collection, groups, dryRun }: Wish): Promise<ReplyOf<typeof makeGroups>> {
    const told: ReplyOf<typeof makeGroups> = { seq: 0, items: [], links: 0, refused: [] };
    const { seq } = await this.ledger.change(projectId, async (state) => {
      const link = findLinkKind(state.scheme, linkKind);
      if (!link) throw new CoombError('input-invalid', `There is no link kind "${linkKind}".`);
      assertOffered(state.scheme, kind);
      const label = getKind(state.scheme, kind).label.toLowerCase();
      const context = { state, person, now: this.clock.now().toISOString(), newId: this.clock.newId };
      const changes: Change[] = [];
      let first: ItemValue | undefined;
      for (const [at, { title, items }] of groups.entries()) {
        const { row: planned, moved } = await this.items.planCreate(state, person, { title, kind, ...(collection && { collection }) });
        // All of them are planned for the same place and number: they stand one after the other.
        first ??= planned;
        const prefix = first.reference.replace(/-\d+$/, '');
        const row = at === 0 ? planned : { ...planned, rank: first.rank + at * STEP, reference: buildReference(prefix, state.nextNumber(prefix) + at) };
        changes.push({ entity: 'item', before: null, after: row }, ...(at === 0 ? moved : []));
        told.items.push({ id: row.id, reference: row.reference });
        for (const id of new Set(items)) {
          const item = state.items[getNode(state, id)]!;
          const [from, to] = reversed ? [row, item] : [item, row];
          const isLinkable = !item.withdrawn && !item.heading && isAllowed(link, from.kind, to.kind);
          if (isLinkable) changes.push({ entity: 'link', before: null, after: { ...buildLink(context, linkKind, from, to), origin: 'made' } });
          else
            told.refused.push({
              item: id,
              says: item.withdrawn ? `${item.reference} is withdrawn` : `“${link.phrase}” does not join ${item.reference} with a ${label}`,
            });
        }
      }
      told.links = changes.filter(({ entity }) => entity === 'link').length;
      if (told.links === 0) throw new CoombError('link-not-allowed', `“${link.phrase}” joins none of these items with a ${label}.`);
      return { person, action: `Make ${counted(groups.length, 'item')} of groups, with ${counted(told.links, 'link')}`, changes: dryRun ? [] : changes };
    });
    return { ...told, seq, ...(dryRun && { items: [] }) };
  }
}
