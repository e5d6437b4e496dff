import { setImmediate } from 'node:timers/promises';
import type { Stepwise } from '@coomb/core';

/** As long as whoever asks meanwhile may wait for their turn. */
const TURN_MS = 6;

/** Runs work in this thread without keeping it: whatever came in meanwhile is answered after each turn. */
export async function inTurns<T>(work: Stepwise<T>): Promise<T> {
  let end = performance.now() + TURN_MS;
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
    if (performance.now() < end) continue;
    await setImmediate();
    end = performance.now() + TURN_MS;
  }
}
