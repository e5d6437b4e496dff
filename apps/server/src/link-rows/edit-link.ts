import type { LinkValue } from '../ledger/change.js';
import type { ProjectState } from '../project-state/project-state.js';
import { getNode } from '../project-state/get-node.js';

/** Number of the newest change of what an end of a link means, in the use that the link holds in only. */
export function meaningAt(state: ProjectState, id: string, usage: string | null): number {
  return state.meaningOf(state.items[getNode(state, id)]!, usage ? state.usages.pathOf(usage) : undefined);
}

/** The same link, holding against what its ends mean now. */
export function confirmLink(state: ProjectState, link: LinkValue, person: string, now: string): LinkValue {
  return {
    ...link,
    fromSeq: meaningAt(state, link.fromId, link.fromUsage),
    toSeq: meaningAt(state, link.toId, link.toUsage),
    confirmedBy: person,
    confirmedAt: now,
  };
}

/** How a link reads: "SYS-001 is derived from NEED-002". */
export function referencesOf(state: ProjectState, link: LinkValue): [from: string, to: string] {
  return [state.items[getNode(state, link.fromId)]!.reference, state.items[getNode(state, link.toId)]!.reference];
}
