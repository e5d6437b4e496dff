import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import { Piscina } from 'piscina';
import { findWorkerFile } from '../http/worker-file.js';
import type { ExportAnswer, ExportTask } from './export.worker.js';

/** Writes files in a thread of its own, so that nobody waits for the fifty thousand items of somebody else. */
@Injectable()
export class ExportWorker implements OnModuleDestroy {
  private pool: Piscina<ExportTask, ExportAnswer> | undefined;

  run(task: ExportTask): Promise<ExportAnswer> {
    this.pool ??= new Piscina<ExportTask, ExportAnswer>({
      filename: findWorkerFile('exports/export.worker.js'),
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
