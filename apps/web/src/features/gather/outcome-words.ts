import type { RecipeOutcome } from '@coomb/core';

/** "123 items, 32 sections, 98 of 123 links; 2 remarks". `found` is how many links find their other end in the project, where that is known. */
export function describeOutcome(outcome: RecipeOutcome, remarks: number, found?: number): string {
  const items = outcome.drafts.filter((draft) => draft.role === 'item').length;
  const sections = outcome.drafts.length - items;
  const many = (count: number, one: string) => `${count} ${one}${count === 1 ? '' : 's'}`;
  const links = many(outcome.links.length, 'link');
  return (
    [
      many(items, 'item'),
      ...(sections ? [many(sections, 'section')] : []),
      found !== undefined && found < outcome.links.length ? `${found} of ${links}` : links,
    ].join(', ') + (remarks ? `; ${many(remarks, 'remark')}` : '; nothing doubtful')
  );
}

const prefixes: Record<string, string> = { need: 'NEED', requirement: 'REQ', testCase: 'TC' };

/** Prefix for references of a new collection: that of the first item that brings one, else the usual one of the kind. */
export function proposePrefix({ drafts }: RecipeOutcome, kind: string): string {
  const reference = drafts.find((draft) => draft.reference)?.reference ?? '';
  return (/^[A-Za-z]+/.exec(reference)?.[0] ?? prefixes[kind] ?? 'REQ').slice(0, 10);
}
