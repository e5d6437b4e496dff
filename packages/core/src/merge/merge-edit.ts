import { isSame, type MergeValue } from './merge-versions.js';

/** What an item says, by name: `title`, `text`, `kind`, `field:<id>`. */
export type Said = Readonly<Record<string, MergeValue>>;

export interface EditConflict {
  field: string;
  base: MergeValue;
  mine: MergeValue;
  theirs: MergeValue;
}

/**
 * Joins an edit with what others changed since it was begun: what only one side changed is taken, also where both say the same; what both
 * changed otherwise is a conflict, unless it is settled. Nothing of either side is lost: what is not taken stands among the conflicts.
 */
export function mergeEdit(
  base: Said,
  theirs: Said,
  mine: Said,
  settled: Readonly<Record<string, 'mine' | 'theirs'>> = {},
): { changed: Said; conflicts: EditConflict[] } {
  const changed: Record<string, MergeValue> = {};
  const conflicts: EditConflict[] = [];
  for (const [field, value] of Object.entries(mine)) {
    const [was, is] = [base[field] ?? null, theirs[field] ?? null];
    if (isSame(value, was) || isSame(value, is)) continue;
    if (isSame(is, was) || settled[field] === 'mine') changed[field] = value;
    else if (settled[field] !== 'theirs') conflicts.push({ field, base: was, mine: value, theirs: is });
  }
  return { changed, conflicts };
}
