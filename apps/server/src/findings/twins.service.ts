import { createHash } from 'node:crypto';
import type { Twins } from '@coomb/core';
import { Inject, Injectable, type OnModuleDestroy } from '@nestjs/common';
import { ItemReadingService } from '../items/item-reading.service.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { WorkerPool } from '../workers/worker-pool.js';
import type { TwinsTask } from './find-twins.worker.js';
import { FoundBeside } from './found-beside.js';

/** Two items by their nodes whose texts say nearly the same. */
export type TwinNodes = Twins;

/** Items that are compared while somebody waits. */
const AT_ONCE = 3000;

/** Items that say nearly the same, compared anew when a text changed. */
@Injectable()
export class TwinsService implements OnModuleDestroy {
  private readonly pool = new WorkerPool<TwinsTask, Twins[]>('findings/find-twins.worker.js', 1);
  private readonly found = new FoundBeside<TwinNodes[]>('Twins');

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
  async find(state: ProjectState): Promise<readonly TwinNodes[]> {
    if (this.states.findLoaded(state.id) !== state) return [];
    const nodes = comparedNodes(state);
    const search = { version: sayVersion(state, nodes), isShort: nodes.length <= AT_ONCE, find: () => this.compare(state, nodes) };
    return (await this.found.find(state, search)) ?? [];
  }

  private async compare(state: ProjectState, nodes: readonly number[]): Promise<TwinNodes[]> {
    const read = await this.reading.readTexts(state, nodes);
    const kinds = state.scheme.kinds.map(({ id }) => id);
    const texts = read.map(({ title, text }, at) => ({ group: kinds.indexOf(state.items[nodes[at]!]!.kind), text: `${title} ${text}` }));
    const twins = await this.pool.run({ texts });
    return twins.map(({ a, b, share }) => ({ a: nodes[a]!, b: nodes[b]!, share }));
  }
}

/** Items that say something of their own, in reading order. */
function comparedNodes(state: ProjectState): number[] {
  const informative = new Set(state.scheme.kinds.flatMap(({ id, informative: is }) => (is ? [id] : [])));
  return Array.from(state.outline().nodes).filter((node) => {
    const { heading, withdrawn, kind } = state.items[node]!;
    return !heading && !withdrawn && !informative.has(kind);
  });
}

function sayVersion(state: ProjectState, nodes: readonly number[]): string {
  const hash = createHash('sha1');
  for (const node of nodes) hash.update(`${node} ${state.items[node]!.meaningSeq} ${state.items[node]!.kind};`);
  return hash.digest('hex');
}
