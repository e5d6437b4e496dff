import type { ItemSheet } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import { findLinkKind, phraseAt } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { LedgerService } from '../changes/ledger.service.js';
import { buildLink, isLinked } from '../link-rows/build-link.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { getNode } from '../project-state/get-node.js';
import type { ProjectState } from '../project-state/project-state.js';
import { chooseKind, joinEnd } from '../link-rows/join-waiting.js';

/** Ends of links that wait for a file which may come later: listed with the item that waits, joined by hand, or let go. */
@Injectable()
export class WaitingEndsService {
  constructor(
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async findOf(state: ProjectState, item: string): Promise<ItemSheet['waiting']> {
    const all = await this.rows.findAll(state.id, 'waitingEnd');
    return all
      .filter((one) => one.itemId === item)
      .map(({ id, linkKinds, reversed, target }) => {
        const kind = findLinkKind(state.scheme, linkKinds[0] ?? '');
        return { id, phrase: kind ? phraseAt(kind, reversed ? 'to' : 'from') : 'is linked with', target };
      });
  }

  join(projectId: string, person: string, id: string, wanted: string): Promise<{ seq: number; ids: string[] }> {
    return this.ledger.change(projectId, async (state) => {
      const waiting = await this.get(projectId, id);
      const [own, other] = [state.items[getNode(state, waiting.itemId)]!, state.items[getNode(state, wanted)]!];
      if (other.withdrawn) throw new CoombError('link-not-allowed', `${other.reference} is withdrawn. Restore it before linking it.`);
      const kind = own.id === other.id ? undefined : chooseKind(state.scheme, waiting, own.kind, other.kind);
      if (!kind) throw new CoombError('link-not-allowed', `None of the links that this may be joins ${own.reference} with ${other.reference}.`);
      const [from, to] = waiting.reversed ? [other, own] : [own, other];
      const context = { state, person, now: this.clock.now().toISOString(), newId: this.clock.newId };
      const link = isLinked(state, kind.id, from.id, to.id) ? null : buildLink(context, kind.id, from, to);
      return { person, action: `Link ${from.reference} ${kind.phrase} ${to.reference}, which waited`, changes: joinEnd(waiting, link) };
    });
  }

  letGo(projectId: string, person: string, id: string): Promise<{ seq: number; ids: string[] }> {
    return this.ledger.change(projectId, async (state) => {
      const waiting = await this.get(projectId, id);
      const { reference } = state.items[getNode(state, waiting.itemId)]!;
      return { person, action: `Let go of an end that ${reference} waited for`, changes: joinEnd(waiting, null) };
    });
  }

  private async get(projectId: string, id: string) {
    const waiting = (await this.rows.findRows(projectId, 'waitingEnd', [id])).get(id);
    if (!waiting || waiting.projectId !== projectId || waiting.withdrawn)
      throw new CoombError('not-found', 'This end waits no more: it was joined or let go. Look again.');
    return waiting;
  }
}
