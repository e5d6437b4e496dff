import { randomBytes } from 'node:crypto';
import { buildUuid7 } from '@coomb/core';
import type { Clock } from './tokens.js';

export const systemClock: Clock = {
  now: () => new Date(),
  newId: () => buildUuid7(Date.now(), randomBytes(10)),
};
