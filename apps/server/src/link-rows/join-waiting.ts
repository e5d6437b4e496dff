import { findLinkKind, isAllowed, type Scheme } from '@coomb/core';
import type { LinkEnd, LinkEnds } from './link-ends.js';
import type { Change, LinkValue, WaitingEndValue } from '../ledger/change.js';

/** The link that a waiting end becomes with an item at its other end; nothing where none of its kinds may join the two. */
export function chooseKind(scheme: Scheme, { linkKinds, reversed }: Pick<WaitingEndValue, 'linkKinds' | 'reversed'>, own: string, other: string) {
  const kinds = linkKinds.flatMap((id) => findLinkKind(scheme, id) ?? []);
  return kinds.find((kind) => (reversed ? isAllowed(kind, other, own) : isAllowed(kind, own, other)));
}

/** What waited goes, and the link comes. */
export function joinEnd(waiting: WaitingEndValue, link: LinkValue | null): Change[] {
  const gone: Change = { entity: 'waitingEnd', before: waiting, after: { ...waiting, withdrawn: true, revision: waiting.revision + 1 } };
  return [gone, ...(link ? [{ entity: 'link', before: null, after: link } satisfies Change] : [])];
}

/**
 * Joins ends that wait for what an import brought. `ownEnd` says what an item that waits is now; `makeLink` makes the row, or nothing where
 * the two are joined so already.
 */
export function joinWaiting(
  scheme: Scheme,
  waiting: readonly WaitingEndValue[],
  ends: LinkEnds,
  ownEnd: (id: string) => LinkEnd | undefined,
  makeLink: (kind: string, from: LinkEnd, to: LinkEnd) => LinkValue | null,
): { changes: Change[]; joined: number } {
  const changes: Change[] = [];
  let joined = 0;
  for (const one of waiting) {
    const own = ownEnd(one.itemId);
    // What somebody pasted names items as people do, what a file says as the file does.
    const other = ends.find({ target: one.target, ...(one.partner !== one.projectId && { by: 'source' }) });
    if (!own || 'count' in other || other.id === own.id) continue;
    const kind = chooseKind(scheme, one, own.kind, other.kind);
    if (!kind) continue;
    changes.push(...joinEnd(one, one.reversed ? makeLink(kind.id, other, own) : makeLink(kind.id, own, other)));
    joined++;
  }
  return { changes, joined };
}
