import { counted } from '@coomb/core';

/** "12 items and 3 sections, 5 links": what came, or would come, of a file. */
export function describeOutcome({ items, sections, links }: { items: number; sections: number; links: number }): string {
  return `${counted(items, 'item')} and ${counted(sections, 'section')}, ${counted(links, 'link')}`;
}
