import { type BodyOf, createSet, editCollection, editSet, mergeSets, planMerge, planSet, renameProject, withdrawCollection } from '@coomb/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { useChange } from '../../shared/live/use-change';

type SetWish = BodyOf<typeof createSet>;

export function usePlanSet(project: string, wish: SetWish) {
  return useQuery({
    queryKey: [...projectKey(project), 'set plan', wish],
    queryFn: () => call(planSet, { params: { project }, body: wish }),
    placeholderData: keepPreviousData,
  });
}

export function usePlanMerge(project: string, set: string, into: string | null) {
  return useQuery({
    queryKey: [...projectKey(project), 'merge plan', set, into],
    queryFn: () => call(planMerge, { params: { project, set }, body: { into } }),
  });
}

export const useRenameProject = (project: string) => useChange(project, (name: string) => call(renameProject, { params: { project }, body: { name } }));
export const useCreateSet = (project: string) =>
  useChange(project, (body: SetWish) => call(createSet, { params: { project }, body }), 'Set added. Undo takes it back.');
export const useEditSet = (project: string) =>
  useChange(project, ({ set, ...body }: BodyOf<typeof editSet> & { set: string }) => call(editSet, { params: { project, set }, body }));
export const useMergeSets = (project: string) =>
  useChange(
    project,
    ({ set, into }: { set: string; into: string | null }) => call(mergeSets, { params: { project, set }, body: { into } }),
    'Merged. Undo parts them again.',
  );
export const useEditCollection = (project: string) =>
  useChange(project, ({ collection, ...body }: BodyOf<typeof editCollection> & { collection: string }) =>
    call(editCollection, { params: { project, collection }, body }),
  );
export const useWithdrawCollection = (project: string) =>
  useChange(project, (collection: string) => call(withdrawCollection, { params: { project, collection } }), 'Collection withdrawn. Undo brings it back.');
