import { type BodyOf, type ComparedDrawing, compareMoments, getDrawing, getReadiness, listDrawings, saveComparison } from '@coomb/contract';
import { compareDrawn } from '@coomb/core';
import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { call, fetchFile } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { useMoment } from '../../shared/moment/moment';

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

/** Figures as of a change, or as of the moment that is looked at. */
export function useReadinessAt(project: string, lens: string | undefined, asOf?: number) {
  return useQuery({
    queryKey: [...projectKey(project), 'readiness at', asOf, lens],
    queryFn: ({ signal }) => call(getReadiness, { params: { project }, query: lens ? { lens } : {}, signal, ...(asOf !== undefined && { asOf }) }),
    retry: false,
  });
}

/** Drawings that are read at once. */
const AT_ONCE = 6;
const nothing = { shapes: [], routes: [] };

/** Drawings that differ between a change and the moment that is looked at. Drawings of both are read a few at a time. */
export function useComparedDrawings(project: string, since: number) {
  const moment = useMoment(project);
  return useQuery({
    queryKey: [...projectKey(project), 'compared drawings', since, moment?.seq],
    queryFn: async ({ signal }) => {
      const list = (asOf?: number) => call(listDrawings, { params: { project }, signal, ...(asOf !== undefined && { asOf }) });
      const [then, now] = await Promise.all([list(since), list()]);
      const read = async (drawing: string, there: readonly { id: string }[], asOf?: number) =>
        there.some(({ id }) => id === drawing) ? call(getDrawing, { params: { project, drawing }, signal, ...(asOf !== undefined && { asOf }) }) : null;
      const names = new Map([...then, ...now].map(({ id, name }) => [id, name]));
      const ids = [...names.keys()];
      const found: ComparedDrawing[] = [];
      for (let from = 0; from < ids.length; from += AT_ONCE)
        found.push(
          ...(await Promise.all(
            ids.slice(from, from + AT_ONCE).map(async (id) => {
              const [before, after] = await Promise.all([read(id, then, since), read(id, now)]);
              return { id, name: names.get(id)!, before, after, changes: compareDrawn(before ?? nothing, after ?? nothing) };
            }),
          )),
        );
      return found.filter(({ before, after, changes }) => changes.length > 0 || !before || !after);
    },
    retry: false,
    staleTime: 30_000,
  });
}
