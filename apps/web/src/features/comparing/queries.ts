import { type BodyOf, compareMoments, saveComparison } from '@coomb/contract';
import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { call, fetchFile } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';

export type Asked = NonNullable<BodyOf<typeof saveComparison>>;
const PAGE = 100;

export function useCompared(project: string, asked: Asked | undefined) {
  return useInfiniteQuery({
    queryKey: [...projectKey(project), 'compared', asked],
    queryFn: ({ pageParam, signal }) => call(compareMoments, { params: { project }, query: { ...asked!, offset: pageParam, most: PAGE }, signal }),
    initialPageParam: 0,
    getNextPageParam: (_, pages) => (pages.length * PAGE < pages[0]!.total ? pages.length * PAGE : undefined),
    enabled: asked !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

export const saveCompared = (project: string, format: 'docx' | 'xlsx' | 'csv', body: Asked) => fetchFile(saveComparison, { params: { project, format }, body });
