import type { RecipeOutcome } from '@coomb/core';

/** "123 items, 32 sections, 123 links; 2 remarks". */
export function describeOutcome(outcome: RecipeOutcome, moreRemarks = 0): string {
  const items = outcome.drafts.filter((draft) => draft.role === 'item').length;
  const sections = outcome.drafts.length - items;
  const many = (count: number, one: string) => `${count} ${one}${count === 1 ? '' : 's'}`;
  const remarks = outcome.issues.length + moreRemarks;
  return (
    [many(items, 'item'), ...(sections ? [many(sections, 'section')] : []), many(outcome.links.length, 'link')].join(', ') +
    (remarks ? `; ${many(remarks, 'remark')}` : '; nothing doubtful')
  );
}

const prefixes: Record<string, string> = { need: 'NEED', requirement: 'REQ', testCase: 'TC' };

/** Prefix for references of a new collection: that of the first item that brings one, else the usual one of the kind. */
export function proposePrefix({ drafts }: RecipeOutcome, kind: string): string {
  const reference = drafts.find((draft) => draft.reference)?.reference ?? '';
  return (/^[A-Za-z]+/.exec(reference)?.[0] ?? prefixes[kind] ?? 'REQ').slice(0, 10);
}
