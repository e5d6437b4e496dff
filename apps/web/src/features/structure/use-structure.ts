import { MOST_THINGS, type OutlineReply } from '@coomb/contract';
import { useMemo } from 'react';
import { useProject } from '../../shared/live/project-queries';
import { ofSameLife } from '../../shared/live/same-life';
import { useSavedViews } from '../../shared/saved-views/queries';
import { listOf, readMarks } from '../matrix/address';
import { buildMatrixSides } from '../matrix/matrix-sides';
import { useMatrix } from '../matrix/queries';
import { useFold } from '../matrix/use-fold';
import { type StructureAddress, weighedBy } from './address';
import { groupsKept, readKept } from './kept';
import { useLinkNumbers, useOrder, useProposal } from './queries';
import { buildStructure } from './things';
import { weighByMarks, weighByNumbers } from './weigh';

/** The things and dependencies that an address asks for, and their order or groups where these are asked for too. */
export function useStructure(outline: OutlineReply | undefined, asked: StructureAddress) {
  const { id: project, collections, scheme } = useProject();
  const views = useSavedViews(project).data;
  const named = listOf(asked.collections).filter((id) => collections.some((one) => one.id === id));
  const chosen = named.length > 0 ? named : [(collections.find(({ holds }) => holds === 'model') ?? collections[0])?.id ?? ''].filter(Boolean);
  const scope = { collections: chosen, kinds: listOf(asked.kinds), below: listOf(asked.below) };
  const marks = readMarks(asked.marks);
  const reply = useMatrix(project, { rows: scope, columns: scope, marks });
  const joined = ofSameLife(outline, reply.data);
  const key = JSON.stringify(scope);
  const sides = useMemo(() => {
    if (!outline || !joined) return undefined;
    const both = JSON.parse(key) as typeof scope;
    return buildMatrixSides(outline, { rows: both, columns: both, entries: joined.entries, usagePaths: joined.usagePaths, show: 'all' });
  }, [outline, joined, key]);
  // Both sides are the same, and folded alike.
  const one = useMemo(() => sides && [sides.row], [sides]);
  const fold = useFold(outline, one, asked.level);
  const field = weighedBy(asked.weights);
  const numbers = useLinkNumbers(project, field);
  const weigh = useMemo(() => {
    if (field === undefined) return weighByMarks(asked.weights);
    return joined && numbers.data && weighByNumbers(scheme, joined.marks, numbers.data);
  }, [field, asked.weights, joined, numbers.data, scheme]);
  const structure = useMemo(
    () => (outline && sides && weigh ? buildStructure(outline, sides, (id) => fold.folded.has(id), asked.show === 'linked', weigh) : undefined),
    [outline, sides, fold.folded, asked.show, weigh],
  );
  const isAskable = structure !== undefined && structure.things.length > 0 && structure.things.length <= MOST_THINGS;
  const kept = useMemo(() => readKept(views?.find(({ id }) => id === asked.kept)), [views, asked.kept]);
  const order = useOrder(project, structure?.edges, Number(asked.seconds), asked.seed, isAskable && asked.by === 'order');
  const isProposed = asked.by === 'groups' && !kept && (asked.kept === '' || views !== undefined);
  const proposal = useProposal(project, structure?.edges, asked.seed, isAskable && isProposed);
  const shownGroups = useMemo(() => {
    if (!structure || asked.by !== 'groups') return undefined;
    if (kept) return { group: groupsKept(kept, structure), shared: [] as number[], better: undefined, of: kept as unknown };
    const { data } = proposal;
    if (data?.group.length !== structure.things.length) return undefined;
    return { group: Int32Array.from(data.group), shared: data.shared, better: data.isTelling ? undefined : data.bitsOfOne, of: data as unknown };
  }, [structure, asked.by, kept, proposal.data, proposal]);
  return { chosen, scope, marks, reply, numbers, joined, sides, fold, structure, isAskable, kept, order, proposal, shownGroups };
}
