import {
  type BodyOf,
  confirmLinks,
  createItem,
  createWaiver,
  editItem,
  editLink,
  explainCoverage,
  getHistory,
  getItem,
  getLinkDifference,
  moveItem,
  removeLinks,
  type ReplyOf,
  withdrawItems,
  restoreItems,
  withdrawWaiver,
} from '@coomb/contract';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { notify, notifyError } from '../../shared/ui/notices';

export type Sheet = ReplyOf<typeof getItem>;

export function useSheet(project: string, item: string) {
  return useQuery({
    queryKey: [...projectKey(project), 'item', item],
    queryFn: () => call(getItem, { params: { project, item } }),
    placeholderData: keepPreviousData,
  });
}

export function useHistory(project: string, item: string) {
  return useQuery({ queryKey: [...projectKey(project), 'history', item], queryFn: () => call(getHistory, { params: { project, item } }) });
}

export function useExplanation(project: string, rule: string, item: string, enabled: boolean) {
  return useQuery({
    queryKey: [...projectKey(project), 'why', rule, item],
    queryFn: () => call(explainCoverage, { params: { project, rule, item } }),
    enabled,
  });
}

export function useLinkDifference(project: string, link: string) {
  return useQuery({ queryKey: [...projectKey(project), 'difference', link], queryFn: () => call(getLinkDifference, { params: { project, link } }) });
}

/** A changing call that refreshes everything of the project when done. */
export function useChange<Input, Result>(project: string, change: (input: Input) => Promise<Result>, done?: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () => {
      if (done) notify(done);
      return client.invalidateQueries({ queryKey: projectKey(project) });
    },
    onError: notifyError,
  });
}

export const useEditItem = (project: string) =>
  useChange(project, ({ id, ...body }: BodyOf<typeof editItem> & { id: string }) => call(editItem, { params: { project, item: id }, body }));
export const useAddItem = (project: string) => useChange(project, (body: BodyOf<typeof createItem>) => call(createItem, { params: { project }, body }));
export const useMoveItem = (project: string) =>
  useChange(project, ({ id, ...body }: BodyOf<typeof moveItem> & { id: string }) => call(moveItem, { params: { project, item: id }, body }));
export const useWithdraw = (project: string) =>
  useChange(project, (items: string[]) => call(withdrawItems, { params: { project }, body: { items } }), 'Withdrawn. Undo brings it back.');
export const useRestore = (project: string) =>
  useChange(project, (items: string[]) => call(restoreItems, { params: { project }, body: { items } }), 'Restored');
export const useRemoveLinks = (project: string) =>
  useChange(project, (links: string[]) => call(removeLinks, { params: { project }, body: { links } }), 'Link removed. Undo brings it back.');
export const useEditLink = (project: string) =>
  useChange(project, ({ link, ...body }: BodyOf<typeof editLink> & { link: string }) => call(editLink, { params: { project, link }, body }));
export const useConfirmLinks = (project: string) =>
  useChange(project, (links: string[]) => call(confirmLinks, { params: { project }, body: { links } }), 'Confirmed');
export const useWaive = (project: string) =>
  useChange(project, (body: BodyOf<typeof createWaiver>) => call(createWaiver, { params: { project }, body }), 'Gap accepted by a waiver. Undo takes it back.');
export const useWithdrawWaiver = (project: string) =>
  useChange(project, (waiver: string) => call(withdrawWaiver, { params: { project, waiver } }), 'Waiver taken back');
