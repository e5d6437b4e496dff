import { CoombError } from '@coomb/contract';
import { ReadError, sanitiseRichText } from '@coomb/formats';
import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import { WorkerPool } from '../workers/worker-pool.js';

/** Texts up to this length are cleaned at once; longer ones in a thread of their own, so that nobody waits for them. */
const AT_ONCE = 20_000;
const MOST_SECONDS = 20;

/** Cleans rich text that people write. Refuses with `input-invalid` what would take a parser very long. */
@Injectable()
export class HtmlCleaner implements OnModuleDestroy {
  private readonly pool = new WorkerPool<string, string>('items/clean-html.worker.js', 1, 400);

  async clean(html: string): Promise<string> {
    try {
      return html.length <= AT_ONCE ? sanitiseRichText(html) : await this.inWorker(html);
    } catch (error) {
      if (error instanceof Error && (error.name === 'ReadError' || error.name === 'AbortError'))
        throw new CoombError(
          'input-invalid',
          error instanceof ReadError ? `html: ${error.message}` : 'html: this text takes too long to clean. Divide it, or paste it as plain text.',
        );
      throw error;
    }
  }

  async onModuleDestroy(): Promise<void> {
    await this.pool.close();
  }

  private async inWorker(html: string): Promise<string> {
    const answer = await this.pool.run(html, { signal: AbortSignal.timeout(MOST_SECONDS * 1000) });
    if (answer.startsWith('!')) throw new ReadError('text-deep', answer.slice(1));
    return answer.slice(1);
  }
}
