import { type BodyOf, CoombError, type createReport, type ReportBody } from '@coomb/contract';
import { getNode } from '../project-state/get-node.js';
import type { ProjectState } from '../project-state/project-state.js';

type Wish = Pick<BodyOf<typeof createReport> & object, 'collections' | 'sections' | 'matrices'>;

/** What a report is about. */
export interface ReportScope {
  within: (node: number) => boolean;
  /** Collections whose trace matrix goes in. */
  matrices: ReadonlySet<string>;
  /** In words; null for the whole project. */
  parts: ReportBody['parts'];
}

/** Refuses collections and sections that are not there. */
export function buildScope(state: ProjectState, { collections, sections, matrices = [] }: Wish): ReportScope {
  const live = new Map(state.contents.liveCollections().map((one) => [one.id, one]));
  const find = (id: string) => {
    const found = live.get(id);
    if (!found) throw new CoombError('not-found', `There is no collection ${id}; it may have been taken back.`);
    return found;
  };
  const chosen = collections && new Set(collections.map((id) => find(id).id));
  const tops = sections && new Set(sections.map((id) => getNode(state, id)));
  const below = tops && findBelow(state, tops);
  // Beside whole collections, sections narrow only the collections that they stand in.
  const narrowed = new Set([...(tops ?? [])].map((node) => state.items[node]!.collectionId));
  const isIn = (node: number) => {
    const { collectionId } = state.items[node]!;
    if (chosen && !chosen.has(collectionId)) return false;
    return !below || below.has(node) || (chosen !== undefined && !narrowed.has(collectionId));
  };
  for (const id of matrices) find(id);
  return {
    within: isIn,
    matrices: new Set(matrices),
    parts:
      chosen || tops
        ? {
            collections: [...(chosen ?? [])].map((id) => ({ id, name: find(id).name })),
            sections: [...(tops ?? [])].map((node) => ({ id: state.items[node]!.id, title: state.items[node]!.title })),
          }
        : null,
  };
}

function findBelow(state: ProjectState, tops: ReadonlySet<number>): Set<number> {
  const below = new Set(tops);
  for (const node of state.outline().nodes) {
    const { parentId } = state.items[node]!;
    const parent = parentId === null ? undefined : state.nodeOf.get(parentId);
    if (parent !== undefined && below.has(parent)) below.add(node);
  }
  return below;
}
