import { MessageChannel } from 'node:worker_threads';
import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import { Piscina } from 'piscina';
import { findWorkerFile } from '../http/worker-file.js';
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
  private pool: Piscina | undefined;

  /** The file that is asked for comes into `file`, piece by piece. Throws what the supply or the writer throws. */
  async run(task: WriteTask, supply: Supply, file?: GrowingFile): Promise<WriteAnswer> {
    this.pool ??= new Piscina({
      filename: findWorkerFile('exports/write-file.worker.js'),
      // The flags of whoever started this process are not the worker's: it runs compiled files only.
      execArgv: [],
      minThreads: 0,
      maxThreads: 1,
      idleTimeout: 60_000,
    });
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
            for await (const slice of supply.slices()) say(slice);
            say('no more items');
          });
        else if (heard === 'no more pieces') resolve();
        else if ('stored' in heard) void feed(async () => say({ files: await supply.findFiles(heard.stored) }));
        else if ('name' in heard) file?.begin(heard.name);
        else file?.add(heard.piece);
      });
    });
    try {
      const [answer] = await Promise.all([this.pool.run({ ...task, port: port2 }, { transferList: [port2] }) as Promise<WriteAnswer>, fed]);
      return answer;
    } finally {
      port1.close();
    }
  }

  async onModuleDestroy(): Promise<void> {
    await this.pool?.destroy();
  }
}
