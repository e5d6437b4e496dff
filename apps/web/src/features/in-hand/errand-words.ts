import type { Errand, ErrandSort } from '@coomb/contract';

/** What is to be done, in a word, and where one goes for it: below the project. */
export const errandWords: Record<ErrandSort, { label: string; goesTo: (errand: Errand & { about: { reference: string; collection: string } }) => string }> = {
  link: { label: 'link', goesTo: ({ about }) => `link?${new URLSearchParams({ left: about.collection, order: 'likely', at: about.reference })}` },
  judge: { label: 'judge a link', goesTo: () => 'link/suspect' },
  mend: { label: 'mend', goesTo: ({ finding }) => `check/findings?${new URLSearchParams({ rule: ruleOf(finding), state: 'taken' })}` },
  look: { label: 'look at', goesTo: ({ about }) => `items/${about.reference}` },
};

/** The rule of a finding by what it is known by: "gap:tested:…" is of "gap:tested". */
export function ruleOf(finding: string | null): string {
  const parts = (finding ?? '').split(':');
  return parts.length > 2 ? parts.slice(0, 2).join(':') : (parts[0] ?? '');
}
