import type { ReplyOf, suggestLinks } from '@coomb/contract';
import { type Candidate, counted, type Reason, writtenWords } from '@coomb/core';
import { Inject, Injectable, type OnModuleDestroy } from '@nestjs/common';
import { ItemReadingService } from '../items/item-reading.service.js';
import { LedgerService } from '../changes/ledger.service.js';
import { CLOCK, type Clock } from '../http/tokens.js';
import type { Change } from '../ledger/change.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { getNode } from '../project-state/get-node.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { WorkerPool } from '../workers/worker-pool.js';
import type { RankAnswer, RankTask } from './rank-links.worker.js';
import { findLinks, neighboursOf, type RankedLists, readLists, sayTexts } from './ranked-lists.js';

type Suggestions = ReplyOf<typeof suggestLinks>;

const MOST_WORDS = 5;
const MOST_SECONDS = 60;

/** Likely other ends for an item, by words, places and the links that are there. */
@Injectable()
export class SuggestionsService implements OnModuleDestroy {
  private readonly pool = new WorkerPool<RankTask, RankAnswer>('links/rank-links.worker.js', 1);

  constructor(
    @Inject(ItemReadingService) private readonly reading: ItemReadingService,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(LedgerReader) private readonly rows: LedgerReader,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async onModuleDestroy(): Promise<void> {
    await this.pool.close();
  }

  async suggest(projectId: string, item: string, collection: string, most: number): Promise<Suggestions> {
    const state = await this.states.get(projectId);
    const node = getNode(state, item);
    const own = state.items[node]!.collectionId;
    const outline = Array.from(state.outline().nodes);
    const nodesOf = (wanted: string) => outline.filter((one) => state.items[one]!.collectionId === wanted);
    const left = nodesOf(own);
    const lists = { left, right: own === collection ? left : nodesOf(collection) };
    const from = left.indexOf(node);
    if (from < 0) return [];
    const refused = await this.findRefused(state);
    const linked = new Set([...neighboursOf(state, node), ...(refused.get(node) ?? [])]);
    const leftOut = lists.right.flatMap((one, index) => (linked.has(one) || state.items[one]!.heading ? [index] : []));
    const task = { key: `${state.id} ${own} ${collection}`, version: sayTexts(state, lists), seq: state.seq, from, most, leftOut };
    const candidates = await this.rank(state, { ...lists, refused }, task);
    const written = writtenWords(await this.reading.readText(state, node));
    return candidates.flatMap(({ index, score, likelihood, reasons }) => {
      if (reasons.length === 0) return [];
      const told = reasons.map((reason) => tell(state, lists, reason, written));
      const shared = told.flatMap((one) => (one.sort === 'words' || one.sort === 'title' ? one.words : []));
      return [{ item: state.brief(lists.right[index]!), score, likelihood, reasons: told, shared: [...new Set(shared)].slice(0, MOST_WORDS) }];
    });
  }

  /** Pairs are not suggested again while both say what they say now. */
  refuse(projectId: string, person: string, pairs: readonly { item: string; other: string }[]): Promise<{ seq: number; ids: string[] }> {
    return this.ledger.change(projectId, async (state) => {
      const refused = await this.findRefused(state);
      const at = this.clock.now().toISOString();
      const changes = pairs.flatMap(({ item, other }): Change[] => {
        const [a, b] = [getNode(state, item), getNode(state, other)];
        if (refused.get(a)?.has(b)) return [];
        const meanings = { itemSeq: state.items[a]!.meaningSeq, otherSeq: state.items[b]!.meaningSeq };
        const ids = { id: this.clock.newId(), projectId, itemId: state.items[a]!.id, otherId: state.items[b]!.id };
        return [{ entity: 'refusal', before: null, after: { ...ids, ...meanings, revision: 1, withdrawn: false, person, at } }];
      });
      const first = pairs[0]!;
      const referenceOf = (id: string) => state.items[getNode(state, id)]!.reference;
      const action =
        pairs.length === 1 ? `Do not suggest ${referenceOf(first.other)} for ${referenceOf(first.item)}` : `Do not suggest ${counted(pairs.length, 'pair')}`;
      return { person, action, changes };
    });
  }

  /** Nodes that are not to be linked with each node, as both stand now. */
  private async findRefused(state: ProjectState): Promise<Map<number, Set<number>>> {
    const found = new Map<number, Set<number>>();
    for (const { itemId, otherId, itemSeq, otherSeq } of await this.rows.findAll(state.id, 'refusal')) {
      const [a, b] = [state.nodeOf.get(itemId), state.nodeOf.get(otherId)];
      if (a === undefined || b === undefined || state.items[a]!.meaningSeq !== itemSeq || state.items[b]!.meaningSeq !== otherSeq) continue;
      for (const [one, other] of [
        [a, b],
        [b, a],
      ] as const)
        found.set(one, (found.get(one) ?? new Set()).add(other));
    }
    return found;
  }

  /** Says what the thread asks for, until it answers. */
  private async rank(state: ProjectState, lists: RankedLists, task: RankTask): Promise<Candidate[]> {
    let asked: RankTask = task;
    for (;;) {
      const answer = await this.pool.run(asked, { signal: AbortSignal.timeout(MOST_SECONDS * 1000) });
      if ('candidates' in answer) return answer.candidates;
      asked = answer.needs === 'links' ? { ...asked, links: findLinks(state, lists) } : { ...asked, items: await readLists(this.reading, state, lists) };
    }
  }
}

/** Words as the item writes them, and items by what they are. */
function tell(state: ProjectState, { left }: RankedLists, reason: Reason, written: ReadonlyMap<string, string>): Suggestions[number]['reasons'][number] {
  if (reason.sort === 'alike') return { sort: 'alike', like: state.brief(left[reason.like]!) };
  if (reason.sort === 'words' || reason.sort === 'title')
    return { ...reason, words: reason.words.slice(0, MOST_WORDS).map((word) => written.get(word) ?? word) };
  return reason;
}
