import { AsyncLocalStorage } from 'node:async_hooks';
import type { NextFunction, Request, Response } from 'express';

const hands = new AsyncLocalStorage<string | null>();

/**
 * Remembers, for as long as a request is worked on, whose hand it came from: a browser's own mark, which stays when the person writes
 * another name. Programs send none; their names tell them apart.
 */
export function rememberCaller(request: Request, _response: Response, next: NextFunction): void {
  const header = request.headers['x-coomb-hand'];
  hands.run(typeof header === 'string' && /^[\w-]{8,64}$/.test(header) ? header : null, next);
}

export function presentHand(): string | null {
  return hands.getStore() ?? null;
}
