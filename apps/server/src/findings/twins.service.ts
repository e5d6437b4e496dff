import { createHash } from 'node:crypto';
import type { Twins } from '@coomb/core';
import { Inject, Injectable, Logger, type OnModuleDestroy } from '@nestjs/common';
import { ItemReadingService } from '../items/item-reading.service.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { WorkerPool } from '../workers/worker-pool.js';
import type { TwinsTask } from './find-twins.worker.js';

/** Two items by their nodes whose texts say nearly the same. */
export type TwinNodes = Twins;

interface Known {
  version: string;
  twins: TwinNodes[];
}

/** Items that are compared while somebody waits; with more of them the ones known before are told, and newer ones the next time. */
const AT_ONCE = 3000;

/** Items that say nearly the same, compared anew when a text changed. */
@Injectable()
export class TwinsService implements OnModuleDestroy {
  private readonly pool = new WorkerPool<TwinsTask, Twins[]>('findings/find-twins.worker.js', 1);
  private readonly known = new WeakMap<ProjectState, Known>();
  private readonly running = new WeakMap<ProjectState, Promise<void>>();
  private readonly logger = new Logger('Twins');

  constructor(
    @Inject(ItemReadingService) private readonly reading: ItemReadingService,
    @Inject(ProjectStates) private readonly states: ProjectStates,
  ) {}

  async onModuleDestroy(): Promise<void> {
    await this.pool.close();
  }

  /** Says which texts were compared last: findings that rest on older ones are found anew. */
  stamp(state: ProjectState): string {
    return this.known.get(state)?.version ?? '';
  }

  /** None for a project of the past: its texts are not read for this. */
  async find(state: ProjectState): Promise<readonly TwinNodes[]> {
    if (this.states.findLoaded(state.id) !== state) return [];
    const nodes = comparedNodes(state);
    const version = sayVersion(state, nodes);
    const known = this.known.get(state);
    if (known?.version === version) return known.twins;
    const running = this.running.get(state) ?? this.compare(state, nodes, version);
    this.running.set(state, running);
    if (nodes.length <= AT_ONCE) await running;
    return this.known.get(state)?.twins ?? [];
  }

  private async compare(state: ProjectState, nodes: readonly number[], version: string): Promise<void> {
    try {
      const read = await this.reading.readTexts(state, nodes);
      const kinds = state.scheme.kinds.map(({ id }) => id);
      const texts = read.map(({ title, text }, at) => ({ group: kinds.indexOf(state.items[nodes[at]!]!.kind), text: `${title} ${text}` }));
      const twins = await this.pool.run({ texts });
      this.known.set(state, { version, twins: twins.map(({ a, b, share }) => ({ a: nodes[a]!, b: nodes[b]!, share })) });
    } catch (error) {
      // What cannot be compared now is compared the next time.
      this.logger.warn(`Texts of "${state.name}" could not be compared: ${(error as Error).message}`);
    } finally {
      this.running.delete(state);
    }
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
