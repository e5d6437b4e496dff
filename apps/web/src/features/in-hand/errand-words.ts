import type { Errand, ErrandSort } from '@coomb/contract';
import { consistencyRules, type Scheme } from '@coomb/core';

/** What is to be done, in a word, and where one goes for it: below the project. */
export const errandWords: Record<ErrandSort, { label: string; goesTo: (errand: Errand & { about: { reference: string; collection: string } }) => string }> = {
  link: { label: 'link', goesTo: ({ about }) => `link?${new URLSearchParams({ left: about.collection, order: 'likely', at: about.reference })}` },
  judge: { label: 'judge a link', goesTo: () => 'link/suspect' },
  mend: { label: 'mend', goesTo: ({ finding }) => `check/findings?${new URLSearchParams({ rule: ruleOf(finding), state: 'taken' })}` },
  look: { label: 'look at', goesTo: ({ about }) => `items/${about.reference}` },
};

/** What a finding says, as far as its rule tells: "misses “Tested”". */
export function sayFinding(finding: string | null, scheme: Pick<Scheme, 'rules'>): string {
  const rule = ruleOf(finding);
  if (rule.startsWith('gap:')) return `misses “${scheme.rules.find(({ id }) => id === rule.slice(4))?.label ?? rule.slice(4)}”`;
  const known: Record<string, string> = { suspect: 'suspect link', 'evidence:failing': 'fails its tests', 'evidence:stale': 'stale evidence' };
  return known[rule] ?? consistencyRules.find(({ id }) => id === rule)?.label.toLowerCase() ?? '';
}

/** The rule of a finding by what it is known by: "gap:tested:…" is of "gap:tested". */
export function ruleOf(finding: string | null): string {
  const parts = (finding ?? '').split(':');
  return parts.length > 2 ? parts.slice(0, 2).join(':') : (parts[0] ?? '');
}
