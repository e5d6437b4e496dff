import type { Scheme } from '../scheme/scheme.js';
import type { CoverageState } from '../scheme/rule.js';
import type { VerificationState } from '../verification/state.js';
import { stateWords } from '../verification/state-words.js';
import { readyRegister } from './ready-register.js';
import type { Condition, RegisterWhat } from './register.js';
import { coverageWords } from './shows/standing.js';

/** Values that one condition names at most, and items that are named one by one in all: an address has to hold them. */
const MOST_NAMED = 200;
export const MOST_LISTED = 600;

const own = { way: [], of: 'some', test: 'is' } as const satisfies Partial<Condition>;

/** What a figure asks of its items, where a condition asks the same: `rule:tested:notMet`, `state:failing`. */
export function conditionOfFigure({ rules }: Scheme, figure: string): Condition | undefined {
  const [family, name, state] = figure.split(':');
  if (family === 'state' && name && name in stateWords)
    return { ...own, way: [], shown: { sort: 'state' }, values: [stateWords[name as VerificationState].label] };
  if (family === 'rule' && name && state && state in coverageWords && rules.some(({ id }) => id === name))
    return { ...own, way: [], shown: { sort: 'coverage', of: name }, values: [coverageWords[state as CoverageState]] };
  return undefined;
}

/** The register of some items: by what they have in common, where that is known, else one by one. Undefined for too many to be named. */
export function registerOfList(scheme: Scheme, items: readonly { reference: string; kind: string }[], common?: Condition): RegisterWhat | undefined {
  const kinds = new Set(items.map(({ kind }) => kind));
  const register = readyRegister(scheme, kinds.size === 1 ? [...kinds][0] : undefined);
  if (common) return { ...register, kinds: [], conditions: [common] };
  if (items.length > MOST_LISTED) return undefined;
  const conditions: Condition[] = [];
  for (let from = 0; from < items.length; from += MOST_NAMED)
    conditions.push({ ...own, way: [], shown: { sort: 'reference' }, values: items.slice(from, from + MOST_NAMED).map(({ reference }) => reference) });
  return { ...register, kinds: [], conditions, match: 'any' };
}
