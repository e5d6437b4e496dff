import type { addRelated, BodyOf, ReplyOf } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import { findLinkKind, getKind, isAllowed } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { LedgerService } from '../changes/ledger.service.js';
import { buildLink } from '../link-rows/build-link.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import { ItemsService } from '../items/items.service.js';
import type { Change } from '../ledger/change.js';
import { getNode } from '../project-state/get-node.js';
import type { ProjectState } from '../project-state/project-state.js';

export type Related = NonNullable<BodyOf<typeof addRelated>>;

/** Makes items that are linked with another from the beginning: one change, one undo. */
@Injectable()
export class RelatedService {
  constructor(
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(ItemsService) private readonly items: ItemsService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async add(projectId: string, person: string, item: string, wanted: Related): Promise<ReplyOf<typeof addRelated>> {
    let made = { item: '', reference: '' };
    const { seq } = await this.ledger.change(projectId, async (state) => {
      const { changes, ...told } = await this.plan(state, person, item, wanted);
      made = { item: told.id, reference: told.reference };
      return { person, action: told.action, changes };
    });
    return { seq, ...made };
  }

  /** Refuses what may not be linked so. Nothing is stored. */
  async plan(
    state: ProjectState,
    person: string,
    item: string,
    { title, kind, linkKind, reversed, collection, parent }: Related,
  ): Promise<{ changes: Change[]; action: string; id: string; reference: string }> {
    const own = state.items[getNode(state, item)]!;
    if (own.withdrawn) throw new CoombError('link-not-allowed', `${own.reference} is withdrawn. Restore it before linking it.`);
    const link = findLinkKind(state.scheme, linkKind);
    if (!link) throw new CoombError('input-invalid', `There is no link kind "${linkKind}".`);
    const { row, moved } = await this.items.planCreate(state, person, { title, kind, ...(collection && { collection }), ...(parent && { parent }) });
    const [from, to] = reversed ? [row, own] : [own, row];
    if (!isAllowed(link, from.kind, to.kind))
      throw new CoombError(
        'link-not-allowed',
        `"${link.phrase}" does not join ${getKind(state.scheme, from.kind).label.toLowerCase()} with ${getKind(state.scheme, to.kind).label.toLowerCase()}.`,
      );
    const context = { state, person, now: this.clock.now().toISOString(), newId: this.clock.newId };
    const after = { ...buildLink(context, linkKind, from, to), origin: 'made' };
    return {
      changes: [{ entity: 'item', before: null, after: row }, ...moved, { entity: 'link', before: null, after }],
      action: `Add ${row.reference}, linked with ${own.reference}`,
      id: row.id,
      reference: row.reference,
    };
  }
}
