import { stateWords, verificationStates, type VerificationState } from '@coomb/core';
import type { FigureFamily } from './figure-family.js';

/** States that are not settled: neither verified nor waived. */
const settled = new Set<VerificationState>(['verified', 'waived', 'notApplicable']);

const whole: Record<string, { label: string; explains: string; has: (state: VerificationState) => boolean }> = {
  all: { label: 'Needs and requirements', explains: 'Everything that needs verification.', has: (state) => state !== 'notApplicable' },
  open: {
    label: 'Not verified yet',
    explains: 'Needs and requirements that are neither verified by fresh results nor waived.',
    has: (state) => !settled.has(state),
  },
};

/** `state:<verification state>`: requirements in that state; `state:all` and `state:open` take several together. */
export const stateFigures = {
  id: 'state',
  describe: (_, [state]) => {
    const words = verificationStates.includes(state as VerificationState) ? stateWords[state as VerificationState] : undefined;
    return whole[state ?? ''] ?? (words && { label: words.label, explains: words.ofMany });
  },
  collect: (state, [wanted]) => {
    const has = whole[wanted!]?.has ?? ((one: VerificationState) => one === wanted);
    const states = state.allStates();
    return state.nodesOfKinds(state.scheme.verification.of.kinds).filter((node) => has(states[node]!));
  },
} satisfies FigureFamily;
