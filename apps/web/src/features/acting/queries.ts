import {
  type BodyOf,
  changeItems,
  confirmLinks,
  findSuspectsAt,
  giveErrands,
  listErrands,
  mendFindings,
  openFigure,
  settleErrands,
  waiveFindings,
  withdrawItems,
} from '@coomb/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { useChange } from '../../shared/live/use-change';

export type About = NonNullable<BodyOf<typeof giveErrands>>['about'][number];

export const useGiveErrands = (project: string) => useChange(project, (body: BodyOf<typeof giveErrands>) => call(giveErrands, { params: { project }, body }));
export const useSettleErrands = (project: string) =>
  useChange(project, (body: BodyOf<typeof settleErrands>) => call(settleErrands, { params: { project }, body }));
export const useWaiveFindings = (project: string) =>
  useChange(project, (body: BodyOf<typeof waiveFindings>) => call(waiveFindings, { params: { project }, body }));
export const useMendFindings = (project: string) =>
  useChange(project, (findings: NonNullable<BodyOf<typeof mendFindings>>['findings']) => call(mendFindings, { params: { project }, body: { findings } }));
export const useConfirm = (project: string) => useChange(project, (body: BodyOf<typeof confirmLinks>) => call(confirmLinks, { params: { project }, body }));
export const useChangeItems = (project: string) => useChange(project, (body: BodyOf<typeof changeItems>) => call(changeItems, { params: { project }, body }));
export const useWithdrawMany = (project: string) =>
  useChange(project, (items: string[]) => call(withdrawItems, { params: { project }, body: { items } }), 'Withdrawn. Undo brings it back.');

/** What would become of a change of items, asked anew as it is composed. */
export function useTriedItems(project: string, body: NonNullable<BodyOf<typeof changeItems>> | undefined) {
  return useQuery({
    queryKey: [...projectKey(project), 'tried items', body],
    queryFn: ({ signal }) => call(changeItems, { params: { project }, body: { ...body!, dryRun: true, skipRefused: true }, signal }),
    enabled: body !== undefined,
    retry: false,
  });
}

/** Items that miss a rule. */
export function useMissing(project: string, rule: string) {
  return useQuery({
    queryKey: [...projectKey(project), 'missing', rule],
    queryFn: async ({ signal }) =>
      new Set((await call(openFigure, { params: { project, figure: `rule:${rule}:notMet` }, query: {}, signal })).items.map(({ id }) => id)),
    enabled: rule !== '',
    retry: false,
  });
}

/** Suspect links at some items. */
export function useSuspectsAt(project: string, items: readonly string[]) {
  return useQuery({
    queryKey: [...projectKey(project), 'suspects at', items],
    queryFn: ({ signal }) => call(findSuspectsAt, { params: { project }, body: { items: [...items] }, signal }),
    retry: false,
  });
}

/** What people have in hand; what is done only when asked for. */
export function useErrands(project: string, done: 'no' | 'all' = 'no') {
  return useQuery({
    queryKey: [...projectKey(project), 'errands', done],
    queryFn: ({ signal }) => call(listErrands, { params: { project }, query: { done }, signal }),
    placeholderData: keepPreviousData,
  });
}
