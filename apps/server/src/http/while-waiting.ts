import type { Response } from 'express';

/** Aborted when whoever asked went away before there was an answer. */
export function whileWaiting(response: Response): AbortSignal {
  const leaving = new AbortController();
  response.once('close', () => !response.writableFinished && leaving.abort());
  return leaving.signal;
}
