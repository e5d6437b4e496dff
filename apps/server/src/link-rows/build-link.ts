import type { LinkValue } from '../ledger/change.js';
import type { ProjectState } from '../project-state/project-state.js';
import type { LinkEnd } from './link-ends.js';

/** Who makes links, and when. */
interface Making {
  state: Pick<ProjectState, 'id' | 'meaningOf'>;
  person: string;
  now: string;
  newId: () => string;
}

/** What must be known of a project to tell whether two items are linked. */
type Known = Partial<Pick<ProjectState, 'linkUsage'>> &
  Pick<ProjectState, 'nodeOf' | 'linkKindIndex'> & { graph: Pick<ProjectState['graph'], 'findLinks' | 'to'> };

/** Where a link of a model came from, with what it is there. */
export const importedAs = (sort: string): string => `imported as ${sort}`;

interface Held {
  /** The use of the end that the link holds in only. */
  usage?: { id: string; path: readonly string[] } | null;
}

/** A link that holds against what its ends mean now; in one use of them only, where such is named. */
export function buildLink({ state, person, now, newId }: Making, kind: string, from: LinkEnd & Held, to: LinkEnd & Held): LinkValue {
  return {
    id: newId(),
    projectId: state.id,
    revision: 1,
    withdrawn: false,
    kind,
    fromId: from.id,
    toId: to.id,
    fromUsage: from.usage?.id ?? null,
    toUsage: to.usage?.id ?? null,
    fields: {},
    origin: 'imported',
    fromSeq: state.meaningOf(from, from.usage?.path),
    toSeq: state.meaningOf(to, to.usage?.path),
    confirmedBy: person,
    confirmedAt: now,
  };
}

/** Whether a link says so already: everywhere, or in the same usages. */
export function isLinked(
  state: Known,
  linkKind: string,
  from: string,
  to: string,
  usage: { from: string | null; to: string | null } = { from: null, to: null },
): boolean {
  const [fromNode, toNode] = [state.nodeOf.get(from), state.nodeOf.get(to)];
  if (fromNode === undefined || toNode === undefined) return false;
  const covers = (known: string | null | undefined, asked: string | null) => !known || known === asked;
  return state.graph.findLinks(fromNode, 'out', state.linkKindIndex(linkKind)).some((link) => {
    if (state.graph.to[link] !== toNode) return false;
    const known = state.linkUsage?.(link);
    return covers(known?.from, usage.from) && covers(known?.to, usage.to);
  });
}
