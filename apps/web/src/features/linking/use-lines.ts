import { isUseWithin } from '@coomb/core';
import type { ReplyOf, listUsed } from '@coomb/contract';

/** One use of an item, as a line of its own below the item's. */
export interface UseLine {
  /** Ids of items from a root down to the item. */
  path: readonly string[];
  /** How the path reads, without what all uses of the item have in common. */
  says: string;
}

const SEPARATOR = ' › ';

/** Uses by outline row, of the items of which something holds in one use only. */
export function buildUseLines(reply: ReplyOf<typeof listUsed> | undefined, rowOf: ReadonlyMap<number, number>): ReadonlyMap<number, readonly UseLine[]> {
  const lines = new Map<number, readonly UseLine[]>();
  for (const { node, usages } of reply?.items ?? []) {
    const row = rowOf.get(node);
    if (row !== undefined) lines.set(row, tellApart(usages));
  }
  return lines;
}

/** Uses of one item by what tells them apart; the item itself is known. */
export function tellApart(usages: readonly { path: readonly string[]; says: string }[]): UseLine[] {
  const told = usages.map(({ says }) => says.split(SEPARATOR).slice(0, -1));
  const common = usages.length > 1 ? countCommon(told) : 0;
  return usages.map(({ path }, at) => ({ path, says: told[at]!.slice(common).join(SEPARATOR) }));
}

/** How many words all lists begin with, leaving each at least one. */
function countCommon(lists: readonly (readonly string[])[]): number {
  const most = Math.min(...lists.map((list) => list.length)) - 1;
  let common = 0;
  while (common < most && lists.every((list) => list[common] === lists[0]![common])) common++;
  return Math.max(0, common);
}

/** What a link is for an item that is looked at in a use: it holds there, there as everywhere, or in other uses only. Without a use, here. */
export function holdsIn(use: readonly string[] | undefined, own: readonly string[] | undefined): 'here' | 'everywhere' | 'elsewhere' {
  if (!use) return 'here';
  if (!own) return 'everywhere';
  return isUseWithin(use, own) ? 'here' : 'elsewhere';
}
