import type { Column, RegisterWhat } from '@coomb/core';

/** Reference and title stay in sight, where they come first. */
export function frozenOf(columns: readonly Column[]): number {
  let count = 0;
  while (count < 2 && columns[count] && columns[count]!.way.length === 0 && ['reference', 'title'].includes(columns[count]!.shown.sort)) count++;
  return count;
}

/** What the rows are called. */
export const kindName = ({ kinds }: RegisterWhat, scheme: { kinds: readonly { id: string; plural: string }[] }) =>
  kinds.length === 0 ? 'Items' : kinds.map((id) => scheme.kinds.find((one) => one.id === id)?.plural ?? id).join(', ');
