import { type ConsistencyGround, findLinkKind, phraseAt } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import type { WaitingEndValue } from '../ledger/change.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { LedgerRepo } from '../ledger/ledger.repo.js';
import { type Doubt, DoubtsService } from './doubts.service.js';
import { type TwinNodes, TwinsService } from './twins.service.js';
import type { ProjectState } from '../project-state/project-state.js';

export interface FindingGround extends ConsistencyGround {
  waitingEnds: ReadonlyMap<string, WaitingEndValue>;
  twins: readonly TwinNodes[];
  doubts: readonly Doubt[];
}

/** An item that went to another collection: which it left, and when. */
interface Move {
  from: string;
  at: string;
}

/** Gathers what rules read beside a project's memory: ends that wait, and ends that moved since their links were confirmed. */
@Injectable()
export class FindingGrounds {
  constructor(
    @Inject(LedgerReader) private readonly rows: LedgerReader,
    @Inject(LedgerRepo) private readonly history: LedgerRepo,
    @Inject(TwinsService) private readonly twins: TwinsService,
    @Inject(DoubtsService) private readonly doubts: DoubtsService,
  ) {}

  async build(state: ProjectState): Promise<FindingGround> {
    const { scheme, graph, items } = state;
    const waitingEnds = new Map((await this.rows.findAll(state.id, 'waitingEnd')).map((one) => [one.id, one]));
    const moved = await this.findMoved(state);
    const gone = new Map<string, boolean>();
    const isGone = (use: string) => {
      let known = gone.get(use);
      if (known === undefined) {
        const item = state.usages.get(use)?.itemId;
        known = item === undefined || (state.usages.of(item).find(({ id }) => id === use)?.gone ?? false);
        gone.set(use, known);
      }
      return known;
    };
    return {
      scheme,
      graph,
      items: items.map(({ kind, heading, withdrawn, reference, collectionId, parentId }) => ({
        ...{ kind, heading, withdrawn, reference, collection: collectionId, parent: parentId ?? collectionId },
      })),
      usesOf: (link) => state.linkUsage(link),
      isGone,
      sayUse: (use) => state.usages.say(use),
      waiting: [...waitingEnds.values()].flatMap(({ id, itemId, linkKinds, reversed, target }) => {
        const node = state.nodeOf.get(itemId);
        const kind = findLinkKind(scheme, linkKinds[0] ?? '');
        return node === undefined ? [] : [{ id, node, phrase: kind ? phraseAt(kind, reversed ? 'to' : 'from') : 'is linked with', target }];
      }),
      movedFrom: (link, end) => moved.get(link)?.[end],
      nameOfCollection: (collection) => state.contents.collections.find(({ id }) => id === collection)?.name ?? 'another collection',
      waitingEnds,
      twins: await this.twins.find(state),
      doubts: await this.doubts.find(state),
    };
  }

  /** Links that were confirmed while one of their ends stood in another collection. */
  private async findMoved(state: ProjectState): Promise<Map<number, { from?: string; to?: string }>> {
    const moves = new Map<number, Move[]>();
    for (const { id, ...move } of await this.history.findItemMoves(state.id, state.seq)) {
      const node = state.nodeOf.get(id);
      if (node !== undefined) moves.set(node, [...(moves.get(node) ?? []), move]);
    }
    const found = new Map<number, { from?: string; to?: string }>();
    if (moves.size === 0) return found;
    const { graph } = state;
    const links = [...moves.keys()].flatMap((node) => [...graph.findLinks(node, 'out'), ...graph.findLinks(node, 'in')]);
    const rows = await this.rows.findRows(
      state.id,
      'link',
      [...new Set(links)].map((link) => state.linkIds.at(link)),
    );
    for (const link of new Set(links)) {
      const confirmedAt = rows.get(state.linkIds.at(link))?.confirmedAt;
      if (confirmedAt === undefined) continue;
      const leftBy = (node: number) => {
        const first = moves.get(node)?.find(({ at }) => Date.parse(at) > Date.parse(confirmedAt));
        return first && first.from !== state.items[node]!.collectionId ? first.from : undefined;
      };
      const [from, to] = [leftBy(graph.from[link]!), leftBy(graph.to[link]!)];
      if (from !== undefined || to !== undefined) found.set(link, { ...(from !== undefined && { from }), ...(to !== undefined && { to }) });
    }
    return found;
  }
}
