import { type BodyOf, createReport, getReport, listReports } from '@coomb/contract';
import { useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { useChange } from '../../shared/live/use-change';

export function useReports(project: string) {
  return useQuery({ queryKey: [...projectKey(project), 'reports'], queryFn: () => call(listReports, { params: { project } }) });
}

export function useReport(project: string, report: string) {
  return useQuery({ queryKey: [...projectKey(project), 'report', report], queryFn: () => call(getReport, { params: { project, report } }) });
}

export const usePublish = (project: string) =>
  useChange(project, (body: BodyOf<typeof createReport>) => call(createReport, { params: { project }, body }), 'Published');
