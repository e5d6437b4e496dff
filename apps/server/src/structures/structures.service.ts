import { CoombError, type DependenciesBody, type orderStructure, type proposeStructure, type ReplyOf } from '@coomb/contract';
import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import { WorkerPool } from '../workers/worker-pool.js';
import type { StructureTask } from './structure.worker.js';

/** Orders and groups what depends on each other. Knows nothing of projects: what is asked of is what is handed in. */
@Injectable()
export class StructuresService implements OnModuleDestroy {
  private pool: WorkerPool<StructureTask, unknown> | undefined;
  private running = 0;

  order(asked: DependenciesBody & { seed: number; seconds: number }, signal: AbortSignal): Promise<ReplyOf<typeof orderStructure>> {
    checkEnds(asked);
    return this.run({ ...asked, sort: 'order' }, signal);
  }

  propose(asked: DependenciesBody & { seed: number }, signal: AbortSignal): Promise<ReplyOf<typeof proposeStructure>> {
    checkEnds(asked);
    return this.run({ ...asked, sort: 'groups' }, signal);
  }

  async onModuleDestroy(): Promise<void> {
    await this.pool?.close();
  }

  /** One after the other on one thread, which is let go once nobody waits: the solver holds much room. */
  private async run<Answer>(task: StructureTask, signal: AbortSignal): Promise<Answer> {
    this.pool ??= new WorkerPool('structures/structure.worker.js', 1);
    const { pool } = this;
    this.running++;
    try {
      return (await pool.run(task, { signal })) as Answer;
    } catch (error) {
      if (signal.aborted) throw new CoombError('job-cancelled', 'It was cancelled.');
      throw error;
    } finally {
      if (--this.running === 0) {
        this.pool = undefined;
        await pool.close();
      }
    }
  }
}

/** Throws input-invalid where a dependency has no ends, leads to itself, or stands there twice. */
function checkEnds({ nodes, from, to, weight }: DependenciesBody): void {
  if (from.length !== to.length || from.length !== weight.length)
    throw new CoombError(
      'input-invalid',
      `There are ${from.length} dependencies, ${to.length} ends and ${weight.length} weights; there must be as many of each.`,
    );
  const pairs = new Set<number>();
  from.forEach((start, at) => {
    const end = to[at]!;
    if (start >= nodes || end >= nodes)
      throw new CoombError('input-invalid', `Dependency ${at + 1} leads from ${start} to ${end}; there are ${nodes} things, numbered from 0.`);
    if (start === end) throw new CoombError('input-invalid', `Dependency ${at + 1} leads from ${start} to itself.`);
    const pair = start * nodes + end;
    if (pairs.has(pair)) throw new CoombError('input-invalid', `Dependency ${at + 1} from ${start} to ${end} stands there twice; add their weights up.`);
    pairs.add(pair);
  });
}
