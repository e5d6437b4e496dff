import type { createWaiver, ReplyOf } from '@coomb/contract';
import type { WaiverRow } from '../ledger/change.js';
import type { ProjectState } from '../project-state/project-state.js';

export function describeWaiver(state: ProjectState, row: WaiverRow): ReplyOf<typeof createWaiver> {
  const { id, itemId, rule, person, reason, until } = row;
  return { id, item: itemId, rule, person, reason, until, active: state.isActive(row) };
}
