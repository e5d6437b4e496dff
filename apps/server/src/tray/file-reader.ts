import { type FileContent, type FileFormat, fileFormats, ReadError, type ReadOptions } from '@coomb/formats';
import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import { WorkerPool } from '../workers/worker-pool.js';
import type { ReadAnswer, ReadTask } from './read-file.worker.js';

/** Memory that reading one file may take, and how long, before it is given up. */
const MOST_MEGABYTES = 900;
const MOST_SECONDS = 120;

/** Reads files in a thread of its own: a large or hostile one neither holds up other people nor takes the server's memory. */
@Injectable()
export class FileReader implements OnModuleDestroy {
  private readonly pool = new WorkerPool<ReadTask, ReadAnswer>('tray/read-file.worker.js', 2, MOST_MEGABYTES);

  /** Reads a file at a path, or its bytes. Throws ReadError with what is wrong and what to do. */
  async read(name: string, from: string | Uint8Array, options: ReadOptions = {}): Promise<{ format: FileFormat; content: FileContent }> {
    const answer = await this.ask({ name, from, options });
    if ('refused' in answer) throw new ReadError(answer.refused.code, answer.refused.message);
    return { format: fileFormats.find((one) => one.id === answer.format)!, content: answer.content };
  }

  async onModuleDestroy(): Promise<void> {
    await this.pool.close();
  }

  private async ask(task: ReadTask): Promise<ReadAnswer> {
    try {
      return await this.pool.run(task, { signal: AbortSignal.timeout(MOST_SECONDS * 1000) });
    } catch (error) {
      if (error instanceof Error && error.name === 'AbortError')
        throw new ReadError('file-slow', `${task.name} took longer than ${MOST_SECONDS} seconds to read and was given up. Divide it and hand in the parts.`, {
          cause: error,
        });
      if (error instanceof Error && 'code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY')
        throw new ReadError(
          'file-large',
          `${task.name} takes more than ${MOST_MEGABYTES} MB of memory to read and was given up. Divide it and hand in the parts.`,
          { cause: error },
        );
      throw error;
    }
  }
}
