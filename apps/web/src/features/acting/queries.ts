import { type BodyOf, confirmLinks, giveErrands, mendFindings, settleErrands, waiveFindings } from '@coomb/contract';
import { call } from '../../shared/api/client';
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
