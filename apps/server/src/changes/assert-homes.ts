import { CoombError } from '@coomb/contract';
import type { Change } from '../ledger/change.js';
import type { ProjectState } from '../project-state/project-state.js';

/**
 * Whatever is done, undone or done again: no item is left present in a collection that is withdrawn, where no view would show it.
 * Refuses with `undo-refused` where something is taken back, else as an invalid wish.
 */
export function assertHomes(state: Pick<ProjectState, 'items' | 'contents'>, changes: readonly Change[], action: string, kind: 'do' | 'undo' | 'redo'): void {
  const after = new Map(state.contents.collections.map((collection) => [collection.id, collection]));
  const closing = new Set<string>();
  for (const change of changes)
    if (change.entity === 'collection') {
      after.set(change.after.id, change.after);
      if (change.after.withdrawn) closing.add(change.after.id);
    }
  const changed = new Set<string>();
  for (const change of changes)
    if (change.entity === 'item') {
      changed.add(change.after.id);
      const home = after.get(change.after.collectionId);
      if (!change.after.withdrawn && home?.withdrawn)
        refuse(action, kind, `${change.after.reference} belongs to the collection "${home.name}", which is withdrawn`);
    }
  if (closing.size === 0) return;
  const left = state.items.find((item) => !item.withdrawn && closing.has(item.collectionId) && !changed.has(item.id));
  if (left) refuse(action, kind, `${left.reference} stands in the collection "${after.get(left.collectionId)!.name}", which would be withdrawn with it`);
}

function refuse(action: string, kind: 'do' | 'undo' | 'redo', why: string): never {
  if (kind === 'do') throw new CoombError('input-invalid', `${why}. Restore an item of it from its own page, which brings the collection back.`);
  throw new CoombError('undo-refused', `"${action}" cannot be ${kind === 'undo' ? 'undone' : 'done again'}: ${why}. Change it by hand instead.`);
}
