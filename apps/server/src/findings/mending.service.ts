import { CoombError } from '@coomb/contract';
import type { Mending } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { CLOCK, type Clock } from '../http/tokens.js';
import type { Change, LinkValue } from '../ledger/change.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { confirmLink } from '../link-rows/edit-link.js';
import { joinEnd } from '../link-rows/join-waiting.js';
import type { ProjectState } from '../project-state/project-state.js';

/** What mending findings changes: rows before and after, for one batch. */
@Injectable()
export class MendingService {
  constructor(
    @Inject(LedgerRepo) private readonly rows: LedgerRepo,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async plan(state: ProjectState, person: string, steps: readonly Mending[]): Promise<Change[]> {
    const linkOf = (step: Mending) => ('link' in step ? state.linkIds.at(step.link) : undefined);
    const links = await this.rows.findRows('link', [...new Set(steps.flatMap((step) => linkOf(step) ?? []))]);
    const items = await this.rows.findRows('item', [...new Set(steps.flatMap((step) => (step.sort === 'restoreItem' ? [state.items[step.node]!.id] : [])))]);
    const waiting = await this.rows.findRows('waitingEnd', [...new Set(steps.flatMap((step) => (step.sort === 'letGo' ? [step.waiting] : [])))]);
    const now = this.clock.now().toISOString();
    const changes = new Map<string, Change>();
    for (const step of steps) {
      if (step.sort === 'letGo') {
        for (const change of joinEnd(waiting.get(step.waiting)!, null)) changes.set(change.after.id, change);
      } else if (step.sort === 'restoreItem') {
        const before = items.get(state.items[step.node]!.id)!;
        if (before.parentId !== null && state.items[state.nodeOf.get(before.parentId)!]!.withdrawn)
          throw new CoombError('input-invalid', `${before.reference} stands below what is withdrawn as well. Restore that first.`);
        const after = { ...before, withdrawn: false, revision: before.revision + 1, changedAt: now, changedBy: person };
        changes.set(before.id, { entity: 'item', before, after });
      } else {
        const before = links.get(linkOf(step)!)!;
        changes.set(before.id, { entity: 'link', before, after: { ...this.changeLink(state, step, before, { person, now }), revision: before.revision + 1 } });
      }
    }
    return [...changes.values()];
  }

  private changeLink(
    state: ProjectState,
    step: Exclude<Mending, { sort: 'letGo' | 'restoreItem' }>,
    link: LinkValue,
    { person, now }: { person: string; now: string },
  ): LinkValue {
    switch (step.sort) {
      case 'removeLink':
        return { ...link, withdrawn: true };
      case 'confirmLink':
        return confirmLink(state, link, person, now);
      case 'holdEverywhere':
        return confirmLink(state, { ...link, fromUsage: null, toUsage: null }, person, now);
      case 'changeKind':
        return { ...link, kind: step.linkKind, fields: {} };
    }
  }
}
