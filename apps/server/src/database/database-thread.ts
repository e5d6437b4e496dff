import { Worker } from 'node:worker_threads';
import { findWorkerFile } from '../workers/worker-file.js';
import type { DatabaseWorkerData, Failure, Reply, Request } from './database.worker.js';
import { readEngineCode } from './engine-code.js';
import type { Transport } from './database-client.js';
import { type Answer, DatabaseDiedError, type Statement } from './engine.js';

/** A statement that takes longer hangs: the longest honest ones take seconds. */
const LONGEST_MS = 10 * 60_000;
const LONGEST_START_MS = 5 * 60_000;

type Pending = { resolve: (value: never) => void; reject: (error: Error) => void; timer: NodeJS.Timeout | undefined };
type Ask = Request extends infer R ? (R extends Request ? Omit<R, 'id'> : never) : never;

/** The thread that the database lives in, seen from outside. `onDied` is called once, when it ended without being asked to. */
export class DatabaseThread implements Transport {
  private readonly pending = new Map<number, Pending>();
  private next = 1;
  private died: DatabaseDiedError | undefined;
  private closing = false;
  private readonly ended: Promise<void>;

  private constructor(
    private readonly worker: Worker,
    private readonly lastWords: SharedArrayBuffer,
    private readonly onDied: (error: DatabaseDiedError) => void,
  ) {
    this.ended = new Promise((resolve) => worker.once('exit', () => resolve()));
    worker.on('message', (reply: Reply) => this.hear(reply));
    worker.on('error', (error) => this.die(error.message));
    worker.on('exit', (code) => this.closing || this.die(this.readLastWords() || `its thread ended with ${code}`));
  }

  /** Starts the thread on a database folder. Throws DatabaseDiedError when the database cannot be opened. */
  static async start(data: Omit<DatabaseWorkerData, 'lastWords' | 'code'>, onDied: (error: DatabaseDiedError) => void): Promise<DatabaseThread> {
    // The flags of whoever started this process are not the worker's: it runs compiled files only.
    const lastWords = new SharedArrayBuffer(2048);
    const worker = new Worker(findWorkerFile('database/database.worker.js'), {
      workerData: { ...data, lastWords, code: await readEngineCode() } satisfies DatabaseWorkerData,
      execArgv: [],
    });
    let isStarted = false;
    const thread = new DatabaseThread(worker, lastWords, (error) => isStarted && onDied(error));
    try {
      await thread.wait(0, LONGEST_START_MS);
      isStarted = true;
      return thread;
    } catch (error) {
      thread.closing = true;
      await worker.terminate();
      throw error;
    }
  }

  run(statement: Statement): Promise<Answer> {
    return this.ask({ type: 'run', statement }, LONGEST_MS);
  }

  /** Copies the database folder as it stands, in a state that opens. */
  copy(folder: string): Promise<number> {
    return this.ask({ type: 'copy', folder }, LONGEST_MS);
  }

  walSize(): Promise<number> {
    return this.ask({ type: 'walSize' }, LONGEST_MS);
  }

  async close(): Promise<void> {
    if (!this.closing && !this.died) {
      const closed = this.ask({ type: 'close' }, 60_000);
      this.closing = true;
      await closed.catch(() => this.worker.terminate());
    }
    this.closing = true;
    if (this.died) await this.worker.terminate();
    await this.ended;
  }

  private ask<T>(request: Ask, longest: number): Promise<T> {
    if (this.died) return Promise.reject(this.died);
    const id = this.next++;
    this.worker.postMessage({ ...request, id });
    return this.wait(id, longest);
  }

  private wait<T>(id: number, longest: number): Promise<T> {
    return new Promise<T>((resolve, reject) => {
      const timer = setTimeout(() => this.die('it did not answer any more'), longest);
      timer.unref();
      this.pending.set(id, { resolve: resolve as (value: never) => void, reject, timer });
    });
  }

  private hear(reply: Reply): void {
    const waiting = this.pending.get(reply.id);
    if (!waiting) return;
    this.pending.delete(reply.id);
    clearTimeout(waiting.timer);
    // The caller knows what it asked for; messages between threads carry no types.
    if ('value' in reply) return waiting.resolve(reply.value as never);
    if (reply.failure.died) this.die(reply.failure.message);
    waiting.reject(reply.failure.died ? this.died! : asError(reply.failure));
  }

  private readLastWords(): string {
    return Buffer.from(new Uint8Array(this.lastWords)).toString('utf8').replace(/\0+$/, '');
  }

  /** Everybody who waits is told, and whoever asks from here on. A stuck thread is ended by force. */
  private die(why: string): void {
    if (this.died) return;
    this.died = new DatabaseDiedError(why);
    for (const { reject, timer } of this.pending.values()) {
      clearTimeout(timer);
      reject(this.died);
    }
    this.pending.clear();
    void this.worker.terminate();
    this.onDied(this.died);
  }
}

function asError({ message, code, detail }: Failure): Error {
  return Object.assign(new Error(message), { code, detail });
}
