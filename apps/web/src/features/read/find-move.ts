import type { OutlineReply } from '@coomb/contract';

export type MoveWish = 'up' | 'down' | 'in' | 'out';

/** Where an item goes when moved among its siblings, below the one before it, or out beside its parent. Undefined where it cannot. */
export function findMove(
  outline: Pick<OutlineReply, 'id' | 'parent'>,
  rows: readonly number[],
  position: number,
  wish: MoveWish,
): { parent: string | null; after: string | null } | undefined {
  const row = rows[position]!;
  const parentRow = outline.parent[row]!;
  const idOf = (one: number | undefined) => (one === undefined || one < 0 ? null : outline.id[one]!);
  const siblings = rows.filter((one) => outline.parent[one] === parentRow);
  const at = siblings.indexOf(row);
  const parent = idOf(parentRow);
  if (wish === 'up') return at > 0 ? { parent, after: idOf(siblings[at - 2]) } : undefined;
  if (wish === 'down') return at < siblings.length - 1 ? { parent, after: idOf(siblings[at + 1]) } : undefined;
  if (wish === 'out') return parentRow < 0 ? undefined : { parent: idOf(outline.parent[parentRow]), after: parent };
  const above = siblings[at - 1];
  if (above === undefined) return undefined;
  const children = rows.filter((one) => outline.parent[one] === above);
  return { parent: idOf(above), after: idOf(children.at(-1)) };
}

/** The item that comes after another one and can be joined to it: the next at its level, else the first below it. Undefined where there is none. */
export function findNext(outline: Pick<OutlineReply, 'id' | 'parent'>, rows: readonly number[], position: number): string | undefined {
  const row = rows[position];
  if (row === undefined) return undefined;
  const siblings = rows.filter((one) => outline.parent[one] === outline.parent[row]);
  const next = siblings[siblings.indexOf(row) + 1] ?? rows.find((one) => outline.parent[one] === row);
  return next === undefined ? undefined : outline.id[next];
}

/** Where among the rows of a collection an item stands that comes after another one: behind all below that one; at the end when that is not there. */
export function findPlaceAfter(outline: Pick<OutlineReply, 'id' | 'parent'>, rows: readonly number[], after: string): number {
  const at = rows.findIndex((row) => outline.id[row] === after);
  if (at < 0) return rows.length;
  const isBelow = (row: number) => {
    for (let up = outline.parent[row]!; up >= 0; up = outline.parent[up]!) if (up === rows[at]) return true;
    return false;
  };
  let next = at + 1;
  while (next < rows.length && isBelow(rows[next]!)) next++;
  return next;
}
