import type { ConsistencyGround, ConsistencyRule, RuleFinding } from './consistency-rule.js';
import { aloneWithout } from './rules/alone-without.js';
import { bothWays } from './rules/both-ways.js';
import { endMoved } from './rules/end-moved.js';
import { endWithdrawn } from './rules/end-withdrawn.js';
import { inACircle } from './rules/in-a-circle.js';
import { notAllowed } from './rules/not-allowed.js';
import { skipsALayer } from './rules/skips-a-layer.js';
import { twiceTheSame } from './rules/twice-the-same.js';
import { useGone } from './rules/use-gone.js';
import { waitsForEnd } from './rules/waits-for-end.js';

/** Every rule of consistency, in the order in which they are told. A rule is a file in `rules`, and a line here. */
export const consistencyRules: readonly ConsistencyRule[] = [
  endWithdrawn,
  notAllowed,
  bothWays,
  inACircle,
  twiceTheSame,
  useGone,
  waitsForEnd,
  endMoved,
  skipsALayer,
  aloneWithout,
];

/** What all rules find, rule by rule. Time grows with links and items together. */
export function findInconsistencies(ground: ConsistencyGround, rules = consistencyRules): { rule: ConsistencyRule; findings: RuleFinding[] }[] {
  return rules.map((rule) => ({ rule, findings: rule.find(ground) }));
}
