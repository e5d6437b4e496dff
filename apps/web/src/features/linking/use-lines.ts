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
  const lines = new Map<number, UseLine[]>();
  for (const { node, usages } of reply?.items ?? []) {
    const row = rowOf.get(node);
    if (row === undefined) continue;
    // The item itself stands above.
    const told = usages.map(({ says }) => says.split(SEPARATOR).slice(0, -1));
    const common = usages.length > 1 ? countCommon(told) : 0;
    lines.set(
      row,
      usages.map(({ path }, at) => ({ path, says: told[at]!.slice(common).join(SEPARATOR) })),
    );
  }
  return lines;
}

/** How many words all lists begin with, leaving each at least one. */
function countCommon(lists: readonly (readonly string[])[]): number {
  const most = Math.min(...lists.map((list) => list.length)) - 1;
  let common = 0;
  while (common < most && lists.every((list) => list[common] === lists[0]![common])) common++;
  return Math.max(0, common);
}
