import { getLinkDifference, listSuspects, removeLinks } from '@coomb/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { useChange } from '../../shared/live/use-change';

export function useSuspects(project: string, part: { lens?: string }) {
  return useQuery({
    queryKey: [...projectKey(project), 'suspects', part],
    queryFn: ({ signal }) => call(listSuspects, { params: { project }, query: part, signal }),
    placeholderData: keepPreviousData,
  });
}

export function useDifference(project: string, link: string | undefined) {
  return useQuery({
    queryKey: [...projectKey(project), 'difference', link],
    queryFn: ({ signal }) => call(getLinkDifference, { params: { project, link: link! }, signal }),
    enabled: link !== undefined,
    placeholderData: keepPreviousData,
  });
}

export const useRemove = (project: string) => useChange(project, (links: string[]) => call(removeLinks, { params: { project }, body: { links } }));
