import type { Errand } from '@coomb/contract';
import type { ErrandValue } from '../ledger/change.js';

export function describeErrand({ id, sort, itemId, linkId, finding, note, owner, giver, at, done }: ErrandValue): Errand {
  return { id, sort, item: itemId, link: linkId, finding, note, owner, giver, at: new Date(at).toISOString(), done };
}
