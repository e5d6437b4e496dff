import type { createWaiver, ReplyOf } from '@coomb/contract';
import type { WaiverValue } from '../ledger/change.js';
import type { ProjectState } from './project-state.js';

export function describeWaiver(state: ProjectState, row: WaiverValue): ReplyOf<typeof createWaiver> {
  const { id, itemId, rule, person, reason, until } = row;
  return { id, item: itemId, rule, person, reason, until, active: state.waivers.isActive(row) };
}
