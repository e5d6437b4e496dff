import { type FindingState, listFindings, trendFindings, MOST_SOUGHT } from '@coomb/contract';
import { useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { useWindows } from '../../shared/live/use-windows';

export interface FindingsWish {
  rule: string | undefined;
  state: FindingState;
  collection: string | undefined;
  words: string;
  /** What is seen through it only, as figures are. */
  lens: string | undefined;
}

export const fetchFindings = (project: string, { rule, state, collection, words, lens }: FindingsWish, offset: number, limit: number, signal?: AbortSignal) =>
  call(listFindings, {
    params: { project },
    query: { state, words: words.slice(0, MOST_SOUGHT), offset, limit, ...(rule && { rule }), ...(collection && { collection }), ...(lens && { lens }) },
    ...(signal && { signal }),
  });

export function useFindings(project: string, wish: FindingsWish) {
  return useWindows({
    key: [...projectKey(project), 'findings', wish],
    read: (offset, limit, signal) => fetchFindings(project, wish, offset, limit, signal),
    rowsOf: ({ findings }) => findings,
    size: 200,
  });
}

/** Read only when it is looked at: it looks at the project as it was after several changes. */
export function useFindingTrend(project: string, lens: string | undefined, enabled: boolean) {
  return useQuery({
    queryKey: [...projectKey(project), 'finding trend', lens],
    queryFn: ({ signal }) => call(trendFindings, { params: { project }, query: { points: 10, ...(lens && { lens }) }, signal }),
    enabled,
  });
}
