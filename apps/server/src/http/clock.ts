import { randomBytes } from 'node:crypto';
import { buildUuid7 } from '@coomb/core';
import type { Clock } from './tokens.js';

/** The day at the place where the server stands, as 2026-11-27: waivers end with theirs. */
export function dayOf(moment: Date): string {
  const two = (part: number) => String(part).padStart(2, '0');
  return `${moment.getFullYear()}-${two(moment.getMonth() + 1)}-${two(moment.getDate())}`;
}

export const systemClock: Clock = {
  now: () => new Date(),
  newId: () => buildUuid7(Date.now(), randomBytes(10)),
};
