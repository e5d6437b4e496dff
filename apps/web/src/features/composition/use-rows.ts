import type { Use } from './queries';

/** A use as it stands in the list, or one whose uses are still on their way. */
export type UseRow = { use: Use; key: string; depth: number; open: boolean };

export const keyOf = (use: Pick<Use, 'path'>): string => use.path.join(',');

/** What is in sight: the root, and below each use that is unfolded its own uses. */
export function buildRows(root: Use, unfolded: ReadonlySet<string>, usesOf: (key: string) => readonly Use[] | undefined): UseRow[] {
  const rows: UseRow[] = [];
  const stack: { use: Use; depth: number }[] = [{ use: root, depth: 0 }];
  for (let next = stack.pop(); next; next = stack.pop()) {
    const { use, depth } = next;
    const key = keyOf(use);
    const open = unfolded.has(key);
    rows.push({ use, key, depth, open });
    const uses = open ? (usesOf(key) ?? []) : [];
    for (let at = uses.length - 1; at >= 0; at--) stack.push({ use: uses[at]!, depth: depth + 1 });
  }
  return rows;
}

/** How a use reads: `drive: Gate Drive`. */
export const nameOf = ({ item, type }: Pick<Use, 'item' | 'type'>): string => (type && type.title !== item.title ? `${item.title}: ${type.title}` : item.title);
