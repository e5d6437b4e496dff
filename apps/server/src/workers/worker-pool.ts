import { Piscina } from 'piscina';
import { findWorkerFile } from './worker-file.js';

const IDLE_MS = 60_000;

/** Threads for one sort of work: started when there is some, ended after a minute without. `megabytes` bounds the memory of each. */
export class WorkerPool<Task, Answer> {
  private pool: Piscina<Task, Answer> | undefined;
  private busy = 0;
  private readonly waiting: (() => void)[] = [];

  constructor(
    private readonly file: string,
    private readonly threads: number,
    private readonly megabytes?: number,
  ) {}

  /** Tasks wait here for a thread, not in the pool: there, one would wait for ever once the thread before it was ended by its caller. */
  async run(task: Task, options?: Parameters<Piscina<Task, Answer>['run']>[1]): Promise<Answer> {
    this.pool ??= new Piscina<Task, Answer>({
      filename: findWorkerFile(this.file),
      // The flags of whoever started this process are not the worker's: it runs compiled files only.
      execArgv: [],
      minThreads: 0,
      maxThreads: this.threads,
      idleTimeout: IDLE_MS,
      ...(this.megabytes && { resourceLimits: { maxOldGenerationSizeMb: this.megabytes } }),
    });
    if (this.busy < this.threads) this.busy++;
    else await new Promise<void>((resolve) => this.waiting.push(resolve));
    try {
      return await this.pool.run(task, options);
    } finally {
      const next = this.waiting.shift();
      if (next) next();
      else this.busy--;
    }
  }

  async close(): Promise<void> {
    await this.pool?.destroy();
  }
}
