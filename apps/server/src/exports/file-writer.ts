import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import { Piscina } from 'piscina';
import { findWorkerFile } from '../http/worker-file.js';
import type { WriteAnswer, WriteTask } from './write-file.worker.js';

/** Writes files in a thread of its own, so that nobody waits for the fifty thousand items of somebody else. */
@Injectable()
export class FileWriter implements OnModuleDestroy {
  private pool: Piscina<WriteTask, WriteAnswer> | undefined;

  run(task: WriteTask): Promise<WriteAnswer> {
    this.pool ??= new Piscina<WriteTask, WriteAnswer>({
      filename: findWorkerFile('exports/write-file.worker.js'),
      // The flags of whoever started this process are not the worker's: it runs compiled files only.
      execArgv: [],
      minThreads: 0,
      maxThreads: 1,
      idleTimeout: 60_000,
    });
    return this.pool.run(task);
  }

  async onModuleDestroy(): Promise<void> {
    await this.pool?.destroy();
  }
}
