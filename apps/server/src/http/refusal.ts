import { CoombError } from '@coomb/contract';
import { ReadError } from '@coomb/formats';
import type { Logger } from '@nestjs/common';

const MOST_LOGGED = 2000;

/** What of an error may be told to people: a refusal, also one that the database library wrapped, and what the database says of the disk and of itself. */
export function findRefusal(error: unknown): CoombError | undefined {
  for (let at = error, depth = 0; at && depth < 5; at = (at as Error).cause, depth++) {
    if (at instanceof CoombError) return at;
    if (at instanceof ReadError) return new CoombError('file-unreadable', at.message, { reason: at.code });
    const { name, code } = at as { name?: string; code?: unknown };
    if (name === 'DatabaseDiedError')
      return new CoombError(
        'unavailable',
        'The database has stopped and Coomb ends. What was answered as done is stored; start Coomb again, its last words say more.',
      );
    if (code === '22003') return new CoombError('input-invalid', 'A number in this is larger than Coomb can store. Nothing was changed.');
    if (code === '53100' || code === 'ENOSPC') return new CoombError('disk-full', 'The disk is full. Nothing was changed. Make room, then try again.');
    if (code === 'XX001' || code === 'XX002')
      return new CoombError('data-damaged', 'A part of the database cannot be read. "coomb verify" says what is sound and what to do. Nothing was changed.');
  }
  return undefined;
}

/** Logs an error whole enough to find its place, without the thousands of values that a statement may carry. */
export function logError(logger: Logger, error: unknown): void {
  if (!(error instanceof Error)) return logger.error(String(error).slice(0, MOST_LOGGED));
  const place = (error.stack ?? '').split('\n').filter((line) => /^\s+at /.test(line));
  const cause = error.cause instanceof Error ? `${error.cause.message}\n` : '';
  logger.error(`${cause}${error.message.slice(0, MOST_LOGGED)}\n${place.slice(0, 12).join('\n')}`);
}
