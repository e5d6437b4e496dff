import { groupBy, type Issue, type Kind, prefixOf, type RecipeOutcome } from '@coomb/core';

/** "123 items, 32 sections, 98 of 123 links; 2 doubtful, 5 notes": notes tell, and ask for no decision. `found` is how many links find their other end in the project, where that is known. */
export function describeOutcome(outcome: RecipeOutcome, remarks: readonly Pick<Issue, 'severity'>[], found?: number): string {
  const items = outcome.drafts.filter((draft) => draft.role === 'item').length;
  const counts = describeCounts({ items, sections: outcome.drafts.length - items, links: outcome.links.length }, found);
  const notes = remarks.filter(({ severity }) => severity === 'note').length;
  const doubtful = remarks.length - notes;
  return `${counts}; ${doubtful ? `${doubtful} doubtful` : 'nothing doubtful'}${notes ? `, ${many(notes, 'note')}` : ''}`;
}

/** "123 items, 32 sections, 98 of 123 links". */
export function describeCounts({ items, sections, links }: { items: number; sections: number; links: number }, found = links): string {
  const all = many(links, 'link');
  return [many(items, 'item'), ...(sections ? [many(sections, 'section')] : []), found < links ? `${found} of ${all}` : all].join(', ');
}

const many = (count: number, one: string) => `${count} ${one}${count === 1 ? '' : 's'}`;

/** Prefix for references of a new collection: the one that at least half of them bring, else the usual one of the kind. */
export function proposePrefix({ drafts }: RecipeOutcome, kind: Kind | undefined): string {
  // One match of a pattern ("UTF-8") is no prefix.
  const found = drafts.flatMap((draft) => /^[A-Za-z]+/.exec(draft.reference ?? '')?.[0] ?? []);
  const [most] = [...groupBy(found, (prefix) => prefix)].sort(([, a], [, b]) => b.length - a.length);
  return (most && most[1].length * 2 >= found.length && (most[1].length > 1 || drafts.length === 1) ? most[0] : prefixOf(kind)).slice(0, 10);
}
