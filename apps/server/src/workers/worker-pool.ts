import { CoombError } from '@coomb/contract';
import { Piscina } from 'piscina';
import { findWorkerFile } from './worker-file.js';

const IDLE_MS = 60_000;
const STOPPING = new CoombError('unavailable', 'Coomb is stopping.');

/** Threads for one sort of work: started when there is some, ended after a minute without. `megabytes` bounds the memory of each. */
export class WorkerPool<Task, Answer> {
  private pool: Piscina<Task, Answer> | undefined;
  private busy = 0;
  private readonly waiting: (() => void)[] = [];
  private isClosed = false;

  constructor(
    private readonly file: string,
    private readonly threads: number,
    private readonly megabytes?: number,
  ) {}

  /** Tasks wait here for a thread, not in the pool: there, one would wait for ever once the thread before it was ended by its caller. */
  async run(task: Task, options?: Parameters<Piscina<Task, Answer>['run']>[1]): Promise<Answer> {
    await this.takeTurn(options?.signal as AbortSignal | undefined);
    try {
      if (this.isClosed) throw STOPPING;
      this.pool ??= new Piscina<Task, Answer>({
        filename: findWorkerFile(this.file),
        // The flags of whoever started this process are not the worker's: it runs compiled files only.
        execArgv: [],
        minThreads: 0,
        maxThreads: this.threads,
        idleTimeout: IDLE_MS,
        ...(this.megabytes && { resourceLimits: { maxOldGenerationSizeMb: this.megabytes } }),
      });
      return await this.pool.run(task, options);
    } catch (error) {
      throw this.isClosed ? STOPPING : error;
    } finally {
      const next = this.waiting.shift();
      if (next) next();
      else this.busy--;
    }
  }

  /** Whoever goes away while they wait leaves the queue at once. */
  private async takeTurn(signal: AbortSignal | undefined): Promise<void> {
    signal?.throwIfAborted();
    if (this.busy < this.threads) {
      this.busy++;
      return;
    }
    await new Promise<void>((resolve, reject) => {
      const leave = () => {
        this.waiting.splice(this.waiting.indexOf(begin), 1);
        reject(signal!.reason);
      };
      const begin = () => {
        signal?.removeEventListener('abort', leave);
        resolve();
      };
      signal?.addEventListener('abort', leave, { once: true });
      this.waiting.push(begin);
    });
  }

  /** Ends what runs; what waits, or comes later, is refused. */
  async close(): Promise<void> {
    this.isClosed = true;
    await this.pool?.destroy();
  }
}
