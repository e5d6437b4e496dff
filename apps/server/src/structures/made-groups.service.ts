import { type BodyOf, CoombError, type makeGroups, type ReplyOf } from '@coomb/contract';
import { buildReference, counted, findLinkKind, getKind, isAllowed } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { LedgerService } from '../changes/ledger.service.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import { assertOffered, ItemsService } from '../items/items.service.js';
import { assertFree } from '../sets/assert-free.js';
import { buildSetOfGroups } from './set-of-groups.js';
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
  async make(projectId: string, person: string, { kind, linkKind, reversed, collection, set, groups, dryRun }: Wish): Promise<ReplyOf<typeof makeGroups>> {
    const told: ReplyOf<typeof makeGroups> = { seq: 0, items: [], links: 0, refused: [] };
    const { seq } = await this.ledger.change(projectId, async (state) => {
      const link = findLinkKind(state.scheme, linkKind);
      if (!link) throw new CoombError('input-invalid', `There is no link kind "${linkKind}".`);
      assertOffered(state.scheme, kind);
      const made = getKind(state.scheme, kind);
      const label = made.label.toLowerCase();
      if (set !== undefined) assertFree(state.contents, set);
      const apart =
        set === undefined ? undefined : buildSetOfGroups(state, this.clock.newId, { name: set, titles: groups.map(({ title }) => title), kind: made });
      // Where each has a collection of its own, any will do to plan the item in.
      const place = collection ?? (apart && state.contents.liveCollections()[0]?.id);
      const context = { state, person, now: this.clock.now().toISOString(), newId: this.clock.newId };
      const changes: Change[] = apart ? [{ entity: 'set', before: null, after: apart.set }] : [];
      let first: ItemValue | undefined;
      for (const [at, { title, items }] of groups.entries()) {
        const { row: planned, moved } = await this.items.planCreate(state, person, { title, kind, ...(place && { collection: place }) });
        // All of them are planned for the same place and number: they stand one after the other.
        first ??= planned;
        const prefix = first.reference.replace(/-\d+$/, '');
        const own = apart?.collections[at];
        const row = own
          ? { ...planned, collectionId: own.id, rank: 0, reference: buildReference(own.prefix, state.nextNumber(own.prefix)) }
          : at === 0
            ? planned
            : { ...planned, rank: first.rank + at * STEP, reference: buildReference(prefix, state.nextNumber(prefix) + at) };
        if (own) changes.push({ entity: 'collection', before: null, after: own });
        changes.push({ entity: 'item', before: null, after: row }, ...(at === 0 && !own ? moved : []));
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
      const into = set === undefined ? '' : `, in the set ${set}`;
      return { person, action: `Make ${counted(groups.length, 'item')} of groups, with ${counted(told.links, 'link')}${into}`, changes: dryRun ? [] : changes };
    });
    return { ...told, seq, ...(dryRun && { items: [] }) };
  }
}
