import { compareMoments, type Item, readCollection } from '@coomb/contract';
import { keepPreviousData, useQueries, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
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

/** What became of the items at some places of a list since a change, by their ids; and how many went. Nothing where it is not asked (0). */
export function useReadingMarks(project: string, since: number, ids: readonly string[], places: readonly number[]) {
  const key = [...projectKey(project), 'reading marks', since];
  const pages = since > 0 ? [...new Set(places.map((place) => Math.floor(place / pageSize)))] : [];
  const head = useQuery({
    queryKey: key,
    queryFn: ({ signal }) => call(compareMoments, { params: { project }, query: { since, entity: 'item', most: 0 }, signal }),
    enabled: since > 0,
    retry: false,
  });
  const rows = useQueries({
    queries: pages.map((page) => {
      const among = ids.slice(page * pageSize, (page + 1) * pageSize).join();
      return {
        queryKey: [...key, among],
        queryFn: ({ signal }: { signal: AbortSignal }) =>
          call(compareMoments, { params: { project }, query: { since, entity: 'item', among, most: pageSize }, signal }),
        enabled: head.data !== undefined,
        placeholderData: keepPreviousData,
        retry: false,
      };
    }),
    combine: (results) => results.flatMap(({ data }) => data?.rows ?? []),
  });
  const byId = useMemo(() => new Map(rows.map((row) => [row.item.id, row])), [rows]);
  return since > 0 ? { byId, went: head.data?.items.went ?? 0, error: head.error } : undefined;
}
