import { createHash } from 'node:crypto';
import { type DoubtfulLink, groupBy } from '@coomb/core';
import { Inject, Injectable, type OnModuleDestroy } from '@nestjs/common';
import { ItemReadingService } from '../items/item-reading.service.js';
import { findLinks, type RankedLists, readLists } from '../links/ranked-lists.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { WorkerPool } from '../workers/worker-pool.js';
import { FoundBeside } from './found-beside.js';
import type { JudgeTask } from './judge-links.worker.js';

export interface Doubt extends Omit<DoubtfulLink, 'place'> {
  link: number;
  /** Which end was compared with what else the other could be linked with. */
  end: 'from' | 'to';
}

/** Links between two collections. */
interface Between extends RankedLists {
  links: number[];
}

/** Links that are judged while somebody waits; and items of two collections beyond which they are not judged. */
const AT_ONCE = 3000;
const MOST_ITEMS = 120_000;

/** Links that are likely wrong, judged anew when texts or links changed. */
@Injectable()
export class DoubtsService implements OnModuleDestroy {
  private readonly pool = new WorkerPool<JudgeTask, DoubtfulLink[]>('findings/judge-links.worker.js', 1);
  private readonly found = new FoundBeside<Doubt[]>('Doubts');

  constructor(
    @Inject(ItemReadingService) private readonly reading: ItemReadingService,
    @Inject(ProjectStates) private readonly states: ProjectStates,
  ) {}

  async onModuleDestroy(): Promise<void> {
    await this.pool.close();
  }

  stamp(state: ProjectState): string {
    return this.found.stamp(state);
  }

  /** None for a project of the past: its texts are not read for this. */
  async find(state: ProjectState): Promise<readonly Doubt[]> {
    if (this.states.findLoaded(state.id) !== state) return [];
    const links = judgedLinks(state);
    const search = { version: sayVersion(state, links), isShort: links.length <= AT_ONCE, find: () => this.judge(state, links) };
    return (await this.found.find(state, search)) ?? [];
  }

  private async judge(state: ProjectState, links: readonly number[]): Promise<Doubt[]> {
    const doubts: Doubt[] = [];
    for (const between of pairUp(state, links)) {
      if (between.left.length + between.right.length > MOST_ITEMS) continue;
      const [left, right] = [placesOf(between.left), placesOf(between.right)];
      const { graph } = state;
      const judged = between.links.map((link) => {
        const [from, to] = [graph.from[link]!, graph.to[link]!];
        const isForward = left.has(from) && right.has(to);
        return { from: left.get(isForward ? from : to)!, to: right.get(isForward ? to : from)!, kind: graph.kind[link]!, isForward };
      });
      const found = await this.pool.run({ items: await readLists(this.reading, state, between), known: findLinks(state, between), judged });
      for (const { place, ...doubt } of found) doubts.push({ ...doubt, link: between.links[place]!, end: judged[place]!.isForward ? 'from' : 'to' });
    }
    return doubts;
  }
}

function judgedLinks(state: ProjectState): number[] {
  const { graph, items } = state;
  const { rowOf } = state.outline();
  return Array.from({ length: graph.links }, (_, link) => link).filter((link) => {
    const [from, to] = [graph.from[link]!, graph.to[link]!];
    return graph.isAlive(link) && from !== to && rowOf[from]! >= 0 && rowOf[to]! >= 0 && !items[from]!.heading && !items[to]!.heading;
  });
}

/** Links by the two collections that they join, of which the larger is the right. */
function pairUp(state: ProjectState, links: readonly number[]): Between[] {
  const { graph, items } = state;
  const members = groupBy(Array.from(state.outline().nodes), (node) => items[node]!.collectionId);
  const pairs = groupBy(links, (link) =>
    [graph.from[link]!, graph.to[link]!]
      .map((node) => items[node]!.collectionId)
      .toSorted()
      .join(' '),
  );
  return [...pairs].map(([key, between]) => {
    const [one, other] = key.split(' ').map((collection) => members.get(collection) ?? []) as [number[], number[]];
    return one.length > other.length ? { left: other, right: one, links: between } : { left: one, right: one === other ? one : other, links: between };
  });
}

const placesOf = (nodes: readonly number[]) => new Map(nodes.map((node, place) => [node, place]));

function sayVersion(state: ProjectState, links: readonly number[]): string {
  const { graph, items } = state;
  const hash = createHash('sha1');
  const ends = new Int32Array(5 * links.length);
  links.forEach((link, at) => {
    const [from, to] = [graph.from[link]!, graph.to[link]!];
    ends.set([link, graph.kind[link]!, items[from]!.meaningSeq, items[to]!.meaningSeq, from], 5 * at);
  });
  return hash.update(ends).update(`${state.outline().nodes.length}`).digest('hex');
}
