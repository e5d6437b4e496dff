import { getRealisation } from '@coomb/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';

export function useRealisation(project: string, part: { lens?: string }) {
  return useQuery({
    queryKey: [...projectKey(project), 'realisation', part],
    queryFn: ({ signal }) => call(getRealisation, { params: { project }, query: part, signal }),
    placeholderData: keepPreviousData,
  });
}
