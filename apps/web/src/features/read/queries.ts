import { type ComparedRow, compareMoments, type Item, readCollection } from '@coomb/contract';
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

/** Differences that are marked in the text at most: beyond these one compares in the list. */
const MOST_MARKED = 2000;
const AT_ONCE = 500;

/** What became of items since a change, by their ids; how many went, and whether there are more than can be marked. Nothing where it is not asked (0). */
export function useReadingMarks(project: string, since: number) {
  const { data, error } = useQuery({
    queryKey: [...projectKey(project), 'reading marks', since],
    queryFn: async ({ signal }) => {
      const rows: ComparedRow[] = [];
      for (;;) {
        const page = await call(compareMoments, { params: { project }, query: { since, entity: 'item', offset: rows.length, most: AT_ONCE }, signal });
        rows.push(...page.rows);
        if (rows.length >= Math.min(page.total, MOST_MARKED) || page.rows.length === 0) return { rows, went: page.items.went, isCut: rows.length < page.total };
      }
    },
    enabled: since > 0,
    retry: false,
  });
  const byId = useMemo(() => data && new Map(data.rows.map((row) => [row.item.id, row])), [data]);
  return since > 0 ? { byId, went: data?.went ?? 0, isCut: data?.isCut ?? false, error } : undefined;
}
