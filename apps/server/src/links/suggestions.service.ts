import type { ReplyOf, suggestLinks } from '@coomb/contract';
import { type Candidate, type KnownLinks, type RankedItem, type Reason, writtenWords } from '@coomb/core';
import { Inject, Injectable, type OnModuleDestroy } from '@nestjs/common';
import { createHash } from 'node:crypto';
import { ItemReadingService } from '../items/item-reading.service.js';
import { getNode } from '../project-state/get-node.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { WorkerPool } from '../workers/worker-pool.js';
import type { RankAnswer, RankTask } from './rank-links.worker.js';

type Suggestions = ReplyOf<typeof suggestLinks>;

/** Items of two collections by their places in them. */
interface Lists {
  left: number[];
  right: number[];
}

const MOST_WORDS = 5;
const MOST_SECONDS = 60;

/** Likely other ends for an item, by words, places and the links that are there. */
@Injectable()
export class SuggestionsService implements OnModuleDestroy {
  private readonly pool = new WorkerPool<RankTask, RankAnswer>('links/rank-links.worker.js', 1);

  constructor(
    @Inject(ItemReadingService) private readonly reading: ItemReadingService,
    @Inject(ProjectStates) private readonly states: ProjectStates,
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
    const linked = new Set(neighboursOf(state, node));
    const leftOut = lists.right.flatMap((one, index) => (linked.has(one) || state.items[one]!.heading ? [index] : []));
    const task = { key: `${state.id} ${own} ${collection}`, version: this.sayVersion(state, lists), seq: state.seq, from, most, leftOut };
    const candidates = await this.rank(state, lists, task);
    const written = writtenWords(await this.reading.readText(state, node));
    return candidates.flatMap(({ index, score, likelihood, reasons }) => {
      if (reasons.length === 0) return [];
      const told = reasons.map((reason) => tell(state, lists, reason, written));
      const shared = told.flatMap((one) => (one.sort === 'words' || one.sort === 'title' ? one.words : []));
      return [{ item: state.brief(lists.right[index]!), score, likelihood, reasons: told, shared: [...new Set(shared)].slice(0, MOST_WORDS) }];
    });
  }

  /** Says what the thread asks for, until it answers. */
  private async rank(state: ProjectState, lists: Lists, task: RankTask): Promise<Candidate[]> {
    let asked: RankTask = task;
    for (;;) {
      const answer = await this.pool.run(asked, { signal: AbortSignal.timeout(MOST_SECONDS * 1000) });
      if ('candidates' in answer) return answer.candidates;
      asked = answer.needs === 'links' ? { ...asked, links: findLinks(state, lists) } : { ...asked, items: await this.read(state, lists) };
    }
  }

  private async read(state: ProjectState, { left, right }: Lists): Promise<NonNullable<RankTask['items']>> {
    const read = async (nodes: readonly number[]): Promise<RankedItem[]> => {
      const texts = await this.reading.readTexts(state, nodes);
      const at = new Map(nodes.map((node, index) => [state.items[node]!.id, index]));
      return nodes.map((node, index) => ({ ...texts[index]!, parent: at.get(state.items[node]!.parentId ?? '') ?? -1 }));
    };
    return { left: await read(left), right: right === left ? 'the same' : await read(right) };
  }

  /** Another one when an item came, went, moved or was reworded. */
  private sayVersion(state: ProjectState, { left, right }: Lists): string {
    const hash = createHash('sha1');
    for (const node of [...left, -1, ...right]) hash.update(node < 0 ? '|' : `${node} ${state.items[node]!.meaningSeq} ${state.items[node]!.parentId ?? ''};`);
    return hash.digest('hex');
  }
}

const neighboursOf = ({ graph }: ProjectState, node: number): number[] => [
  ...graph.findLinks(node, 'out').map((link) => graph.to[link]!),
  ...graph.findLinks(node, 'in').map((link) => graph.from[link]!),
];

/**
 * Links of any kind between two collections, whichever way; within one from where they begin, or each would stand for its own reverse. And all others
 * around the items, by their nodes.
 */
function findLinks(state: ProjectState, { left, right }: Lists): KnownLinks {
  const { graph } = state;
  const at = new Map(right.map((node, index) => [node, index]));
  const around = { left: left.map((node) => neighboursOf(state, node)), right: [] as number[][] };
  around.right = right === left ? around.left : right.map((node) => neighboursOf(state, node));
  const endsOf = (node: number, index: number) => (right === left ? graph.findLinks(node, 'out').map((link) => graph.to[link]!) : around.left[index]!);
  const links = left.flatMap((node, from) => [...new Set(endsOf(node, from))].flatMap((other) => (at.has(other) ? [[from, at.get(other)!] as const] : [])));
  return { links, around };
}

/** Words as the item writes them, and items by what they are. */
function tell(state: ProjectState, { left }: Lists, reason: Reason, written: ReadonlyMap<string, string>): Suggestions[number]['reasons'][number] {
  if (reason.sort === 'alike') return { sort: 'alike', like: state.brief(left[reason.like]!) };
  if (reason.sort === 'words' || reason.sort === 'title')
    return { ...reason, words: reason.words.slice(0, MOST_WORDS).map((word) => written.get(word) ?? word) };
  return reason;
}
