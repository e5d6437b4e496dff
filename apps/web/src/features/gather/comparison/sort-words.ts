import type { ComparedEntry } from '@coomb/contract';

/** What became of an item, in words. */
export const sortWords: Record<ComparedEntry['sort'], string> = {
  new: 'new',
  changed: 'changed',
  moved: 'moved',
  removed: 'no longer there',
  returned: 'withdrawn here, changed there',
  same: 'matched, not changed',
};
