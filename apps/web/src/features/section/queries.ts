import { getReadiness, getTrace, listLinks } from '@coomb/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';

/** Above this many links the seams are left out until something is traced. */
export const mostSeams = 20_000;

export function useSeams(project: string, links: number) {
  return useQuery({
    queryKey: [...projectKey(project), 'links', 'all'],
    queryFn: () => call(listLinks, { params: { project } }),
    enabled: links > 0 && links <= mostSeams,
    placeholderData: keepPreviousData,
  });
}

export function useTrace(project: string, item: string | undefined) {
  return useQuery({
    queryKey: [...projectKey(project), 'trace', item],
    queryFn: ({ signal }) => call(getTrace, { params: { project, item: item! }, signal }),
    enabled: item !== undefined,
  });
}

/** Figures of everything, or of what is seen through a lens. */
export function useReadiness(project: string, lens?: string) {
  return useQuery({
    queryKey: [...projectKey(project), 'readiness', lens],
    queryFn: () => call(getReadiness, { params: { project }, query: lens ? { lens } : {} }),
    placeholderData: keepPreviousData,
  });
}
