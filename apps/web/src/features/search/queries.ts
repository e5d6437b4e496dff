import { findItems, MOST_SOUGHT } from '@coomb/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';

/** Items that are listed at most: as many as the server gives. */
export const MOST_FOUND = 1000;

export function useFound(project: string, words: string, part: { lens?: string }) {
  return useQuery({
    queryKey: [...projectKey(project), 'find', words, MOST_FOUND, part],
    queryFn: ({ signal }) => call(findItems, { params: { project }, query: { words: words.slice(0, MOST_SOUGHT), most: MOST_FOUND, ...part }, signal }),
    enabled: words.trim() !== '',
    placeholderData: keepPreviousData,
  });
}
