import type { Column, RegisterWhat } from '@coomb/core';

/** Reference and title stay in sight, where they come first. */
export function frozenOf(columns: readonly Column[]): number {
  let count = 0;
  while (count < 2 && columns[count] && columns[count]!.way.length === 0 && ['reference', 'title'].includes(columns[count]!.shown.sort)) count++;
  return count;
}

/** Pixels that a column is given until somebody gives it others. */
export function widthOf({ way, shown, as }: Column, type: string | undefined): number {
  if (shown.sort === 'reference' && way.length === 0) return 92;
  if (shown.sort === 'title' && way.length === 0) return 300;
  if (shown.sort === 'text') return 380;
  if (as === 'count' || type === 'number') return 96;
  return type === 'moment' ? 104 : way.length > 0 ? 170 : 132;
}

/** What the rows are called. */
export const kindName = ({ kinds }: RegisterWhat, scheme: { kinds: readonly { id: string; plural: string }[] }) =>
  kinds.length === 0 ? 'Items' : kinds.map((id) => scheme.kinds.find((one) => one.id === id)?.plural ?? id).join(', ');
