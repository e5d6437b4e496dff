import { parentPort, workerData } from 'node:worker_threads';
import { copyTree } from './copy-tree.js';
import { DatabaseDiedError, Engine, type Statement } from './engine.js';
import type { EngineCode } from './engine-code.js';
import { failingDisk } from './failing-disk.js';

export interface DatabaseWorkerData {
  dataDir: string;
  /** Bytes that may still be written before the disk is full: for tests of that. */
  diskBytes?: number | undefined;
  /** Takes the last words of a database that gave up: it ends its thread at once, and no message would get out. */
  lastWords: SharedArrayBuffer;
  code: EngineCode | undefined;
}

export type Request =
  | { id: number; type: 'run'; statement: Statement }
  | { id: number; type: 'copy'; folder: string }
  | { id: number; type: 'walSize' }
  | { id: number; type: 'close' };

/** Errors lose their kind between threads, so they come as values. */
export interface Failure {
  message: string;
  code: string | undefined;
  detail: string | undefined;
  died: boolean;
}
export type Reply = { id: number; value: unknown } | { id: number; failure: Failure };

/** The database in a thread of its own: long work in it holds up nobody, and when it hangs it can be ended. */
const { dataDir, diskBytes, lastWords, code } = workerData as DatabaseWorkerData;
const port = parentPort!;

const fail = (error: unknown): Failure => {
  const { message, code, detail } = error as { message?: string; code?: string; detail?: string };
  return { message: message ?? String(error), code, detail, died: error instanceof DatabaseDiedError };
};

/** Ends this thread in the middle of whatever it does. */
function leave(message: string): void {
  const words = new Uint8Array(lastWords);
  words.set(Buffer.from(message).subarray(0, words.length));
  process.exit(1);
}

async function serve(): Promise<void> {
  let engine: Engine;
  try {
    engine = await Engine.open(dataDir, { onDied: leave, code, ...(diskBytes !== undefined && { prepare: failingDisk(diskBytes) }) });
  } catch (error) {
    return port.postMessage({ id: 0, failure: fail(error) } satisfies Reply);
  }
  port.on('message', async (request: Request) => {
    try {
      port.postMessage({ id: request.id, value: await answer(engine, request) } satisfies Reply);
    } catch (error) {
      port.postMessage({ id: request.id, failure: fail(error) } satisfies Reply);
    }
    if (request.type === 'close') port.close();
  });
  port.postMessage({ id: 0, value: null } satisfies Reply);
}

async function answer(engine: Engine, request: Request): Promise<unknown> {
  switch (request.type) {
    case 'run':
      return engine.run(request.statement);
    case 'copy':
      // Nothing is written while this runs: the database lives in this very thread.
      await engine.run({ sql: 'checkpoint', params: [], rowMode: 'array' });
      return copyTree(dataDir, request.folder);
    case 'walSize':
      return engine.walSize(dataDir);
    case 'close':
      return engine.close();
  }
}

void serve();
