import type { getBatch, ReplyOf } from '@coomb/contract';
import { findLinkKind, labelOf, phraseAt } from '@coomb/core';
import { toPart } from '../project-state/scheme-parts.js';
import type { ProjectState } from '../project-state/project-state.js';
import type { Change } from '../ledger/change.js';

type BatchRow = ReplyOf<typeof getBatch>['rows'][number];

/** One changed row in words, with the items that it is about as they are now. */
export function describeChange(state: ProjectState, change: Change): BatchRow {
  const brief = (id: string) => {
    const node = state.nodeOf.get(id);
    return node === undefined ? null : state.brief(node);
  };
  const did =
    change.before === null ? 'made' : change.after.withdrawn === change.before.withdrawn ? 'changed' : change.after.withdrawn ? 'withdrawn' : 'restored';
  const row = { entity: change.entity, did, item: null, phrase: null, other: null, name: '' } satisfies BatchRow;
  switch (change.entity) {
    case 'item':
      return { ...row, item: brief(change.after.id), name: change.after.title };
    case 'link':
      return {
        ...row,
        item: brief(change.after.fromId),
        phrase: findLinkKind(state.scheme, change.after.kind)?.phrase ?? change.after.kind,
        other: brief(change.after.toId),
      };
    case 'usage':
      return { ...row, item: brief(change.after.itemId), name: state.usages.sayPath(change.after.path) };
    case 'waitingEnd': {
      const kind = findLinkKind(state.scheme, change.after.linkKinds[0] ?? '');
      const phrase = kind ? phraseAt(kind, change.after.reversed ? 'to' : 'from') : null;
      return { ...row, item: brief(change.after.itemId), phrase, name: change.after.target };
    }
    case 'errand':
      return { ...row, item: brief(change.after.itemId), name: `${change.after.owner}: ${change.after.note}` };
    case 'refusal':
      return { ...row, item: brief(change.after.itemId), phrase: 'is not to be linked with', other: brief(change.after.otherId) };
    case 'waiver':
      return { ...row, item: brief(change.after.itemId), name: change.after.reason };
    case 'clipping':
      return { ...row, item: brief(change.after.itemId), name: change.after.quote.slice(0, 200) };
    case 'report':
      return { ...row, name: `${change.after.number}. ${change.after.title}` };
    case 'schemePart':
      return { ...row, name: labelOf(toPart(change.after)) ?? 'What verifies' };
    default:
      return { ...row, name: change.after.name };
  }
}
