import { MessageChannel, type MessagePort } from 'node:worker_threads';
import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import { WorkerPool } from '../workers/worker-pool.js';
import type { GrowingFile } from './growing-file.js';
import type { Slice } from './read-scene.js';
import type { FromWorker, ToWorker, WriteAnswer, WriteTask } from './write-file.worker.js';
import type { StoredFile } from './writers/writer.js';

/** Where the worker gets what it writes from, while it runs. */
export interface Supply {
  slices: () => AsyncIterable<Slice>;
  findFiles: (ids: string[]) => Promise<StoredFile[]>;
}

/** Writes files in a thread of its own, from items that come slice by slice, so that nobody waits for the fifty thousand of somebody else. */
@Injectable()
export class FileWriter implements OnModuleDestroy {
  private readonly pool = new WorkerPool<WriteTask & { port: MessagePort }, WriteAnswer>('exports/write-file.worker.js', 1);

  /** The file that is asked for comes into `file`, piece by piece. Throws what the supply or the writer throws; aborted, it ends the thread that writes. */
  async run(task: WriteTask, supply: Supply, { file, signal }: { file?: GrowingFile; signal?: AbortSignal | undefined } = {}): Promise<WriteAnswer> {
    const { port1, port2 } = new MessageChannel();
    const say = (message: ToWorker) => port1.postMessage(message);
    const fed = new Promise<void>((resolve, reject) => {
      const feed = async (work: () => Promise<void>) => {
        try {
          await work();
        } catch (error) {
          say({ failed: String(error) });
          reject(error);
        }
      };
      port1.on('message', (heard: FromWorker) => {
        if (heard === 'begin')
          void feed(async () => {
            for await (const slice of supply.slices()) {
              if (signal?.aborted) return;
              say(slice);
            }
            say('no more items');
          });
        else if (heard === 'no more pieces') resolve();
        else if ('stored' in heard) void feed(async () => say({ files: await supply.findFiles(heard.stored) }));
        else if ('name' in heard) file?.begin(heard.name);
        else file?.add(heard.piece);
      });
    });
    try {
      const [answer] = await Promise.all([this.pool.run({ ...task, port: port2 }, { transferList: [port2], ...(signal && { signal }) }), fed]);
      return answer;
    } finally {
      port1.close();
    }
  }

  async onModuleDestroy(): Promise<void> {
    await this.pool.close();
  }
}
