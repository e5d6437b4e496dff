import type { Response } from 'express';

/** Aborted when whoever asked went away before there was an answer. */
export function whileWaiting(response: Response): AbortSignal {
  const leaving = new AbortController();
  // Who left while the question was still being read has left.
  if (response.destroyed) leaving.abort();
  response.once('close', () => !response.writableFinished && leaving.abort());
  return leaving.signal;
}
