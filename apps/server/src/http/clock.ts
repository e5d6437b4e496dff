import { randomBytes } from 'node:crypto';
import { buildUuid7 } from '@coomb/core';
import type { Clock } from './tokens.js';

/** The day at the place where the server stands, as 2026-11-27: waivers end with theirs. */
export function dayOf(moment: Date): string {
  const two = (part: number) => String(part).padStart(2, '0');
  return `${moment.getFullYear()}-${two(moment.getMonth() + 1)}-${two(moment.getDate())}`;
}

/** Random bytes of one id, and how many ids share a draw: drawing takes longer than making the id. */
const [ID_BYTES, IDS_DRAWN] = [10, 512];
let drawn = Buffer.alloc(0);
let used = 0;

function drawBytes(): Uint8Array {
  if (used + ID_BYTES > drawn.length) [drawn, used] = [randomBytes(ID_BYTES * IDS_DRAWN), 0];
  used += ID_BYTES;
  return drawn.subarray(used - ID_BYTES, used);
}

export const systemClock: Clock = {
  now: () => new Date(),
  newId: () => buildUuid7(Date.now(), drawBytes()),
};
