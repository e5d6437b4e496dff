import { type Item, readCollection } from '@coomb/contract';
import { keepPreviousData, useQueries } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';

export const pageSize = 100;

/** Texts of the items at some positions of a collection, fetched page by page. */
export function useTexts(project: string, collection: string, positions: readonly number[]): (position: number) => Item | undefined {
  const pages = [...new Set(positions.map((position) => Math.floor(position / pageSize)))];
  const results = useQueries({
    queries: pages.map((page) => ({
      queryKey: [...projectKey(project), 'reading', collection, page],
      queryFn: () => call(readCollection, { params: { project, collection }, query: { offset: page * pageSize, limit: pageSize } }),
      placeholderData: keepPreviousData,
    })),
  });
  return (position) => results[pages.indexOf(Math.floor(position / pageSize))]?.data?.items[position % pageSize];
}
