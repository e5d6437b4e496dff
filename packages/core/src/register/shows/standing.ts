import type { CoverageState } from '../../scheme/rule.js';
import { stateWords } from '../../verification/state-words.js';
import type { verificationStates } from '../../verification/state.js';
import { type AnyShow, sayMoment } from './show.js';

/** From sound to what is worst. */
const order = [
  'notApplicable',
  'verified',
  'waived',
  'planned',
  'partly',
  'stale',
  'unplanned',
  'failing',
] as const satisfies (typeof verificationStates)[number][];

export const state: AnyShow = {
  sort: 'state',
  offers: () => [{ label: 'State', type: 'choice', values: order.map((one) => stateWords[one].label) }],
  read: ({ stateOf }, node) => stateWords[stateOf(node)].label,
};

export const coverageWords: Record<CoverageState, string> = {
  notApplicable: 'not asked',
  met: 'met',
  waived: 'waived',
  suspect: 'met by suspect links',
  notMet: 'not met',
};

export const coverage: AnyShow = {
  sort: 'coverage',
  offers: ({ rules }) => rules.map(({ id, label }) => ({ of: id, label, type: 'choice', values: Object.values(coverageWords) })),
  read: ({ coverageOf }, node, of) => coverageWords[coverageOf(of, node)],
};

const outcomes = ['passed', 'skipped', 'failed', 'broken'];

export const result: AnyShow = {
  sort: 'result',
  offers: () => [{ label: 'Latest result', type: 'choice', values: outcomes }],
  read: ({ resultOf }, node) => resultOf(node)?.outcome ?? null,
};

export const resultAt: AnyShow = {
  sort: 'resultAt',
  offers: () => [{ label: 'Latest result on', type: 'moment' }],
  read: ({ resultOf }, node) => {
    const last = resultOf(node);
    return last ? sayMoment(last.at) : null;
  },
};
