import type { Scheme } from '@coomb/core';
import type { Change } from '../ledger/change.js';
import type { LightItem } from './light-item.js';

/**
 * What a change of each sort of thing lets memory compute anew: nothing where no figure hangs on it, or where it is followed one by one;
 * the order of the outline; or all figures.
 */
export const invalidates: Readonly<Record<Change['entity'], 'nothing' | 'order' | 'figures'>> = {
  item: 'nothing',
  link: 'nothing',
  waiver: 'nothing',
  errand: 'nothing',
  refusal: 'nothing',
  project: 'nothing',
  report: 'nothing',
  baseline: 'nothing',
  savedView: 'nothing',
  recipe: 'nothing',
  source: 'nothing',
  clipping: 'nothing',
  drawing: 'nothing',
  waitingEnd: 'nothing',
  run: 'nothing',
  collection: 'order',
  set: 'order',
  usage: 'figures',
  schemePart: 'figures',
};

interface Within {
  scheme: Scheme;
  items: readonly LightItem[];
  nodeOf: ReadonlyMap<string, number>;
}

/** Whether a change makes parts of something, or of something else. */
export function changesComposition(change: Change, { scheme, items, nodeOf }: Within): boolean {
  if (change.entity === 'link') {
    const role = scheme.linkKinds.find(({ id }) => id === change.after.kind)?.role;
    return role === 'types' || role === 'composes';
  }
  if (change.entity !== 'item' || change.after.heading) return false;
  const { before, after } = change;
  if (before !== null) return before.parentId !== after.parentId || before.withdrawn !== after.withdrawn;
  return after.parentId !== null && items[nodeOf.get(after.parentId) ?? -1]?.heading === false;
}

/** Nodes that changes name: the items, and both ends of the links. */
export function findTouched(changes: readonly Change[], nodeOf: ReadonlyMap<string, number>): Set<number> {
  const touched = new Set<number>();
  for (const change of changes) {
    if (change.entity === 'item') touched.add(nodeOf.get(change.after.id)!);
    if (change.entity === 'link') touched.add(nodeOf.get(change.after.fromId)!).add(nodeOf.get(change.after.toId)!);
    if (change.entity === 'waiver') touched.add(nodeOf.get(change.after.itemId)!);
  }
  return touched;
}

/** By how many a change makes the sources more or fewer that are there. */
export function sourcesMore(change: Change): number {
  if (change.entity !== 'source') return 0;
  const wasThere = change.before !== null && !change.before.withdrawn;
  return Number(!change.after.withdrawn) - Number(wasThere);
}
