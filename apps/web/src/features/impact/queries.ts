import { readImpact } from '@coomb/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';

export function useImpact(project: string, items: readonly string[], kinds: readonly string[], most: number | undefined) {
  return useQuery({
    queryKey: [...projectKey(project), 'impact', items, kinds, most],
    queryFn: ({ signal }) =>
      call(readImpact, { params: { project }, body: { items: [...items], ...(kinds.length > 0 && { kinds: [...kinds] }), ...(most && { most }) }, signal }),
    enabled: items.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
  });
}
