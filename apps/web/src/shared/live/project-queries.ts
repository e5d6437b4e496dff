import { getOutline, getOutlineSince, getProject, type OutlineReply, type ReplyOf } from '@coomb/contract';
import { applyOutlineDifference } from '@coomb/core';
import { queryOptions, useQuery, useSuspenseQuery } from '@tanstack/react-query';
import { useMemo, useRef } from 'react';
import { useParams } from 'react-router';
import { call } from '../api/client';
import { projectKey } from '../api/keys';
import { alignOutline } from './align-outline';

export type Project = ReplyOf<typeof getProject>;

export const projectQuery = (project: string) =>
  queryOptions({ queryKey: [...projectKey(project), 'about'], queryFn: () => call(getProject, { params: { project } }) });
export const outlineQuery = (project: string) =>
  queryOptions({
    queryKey: [...projectKey(project), 'outline'],
    queryFn: ({ client, queryKey }) => fetchOutline(project, client.getQueryData<OutlineReply>(queryKey)),
    // Columns in which nothing changed are the same arrays already: comparing fifty thousand rows again would only take time.
    structuralSharing: false,
  });

/** What changed since the outline that is shown, put into it; the whole where that is too far back. */
async function fetchOutline(project: string, shown: OutlineReply | undefined): Promise<OutlineReply> {
  if (shown) {
    const { seq, day, life } = shown;
    const since = await call(getOutlineSince, { params: { project }, query: { seq, day, life } });
    if (!since.whole && since.difference) return { ...applyOutlineDifference(shown, since.difference), seq: since.seq, day: since.day };
  }
  return call(getOutline, { params: { project } });
}

export function useProjectId(): string {
  return useParams().project!;
}

/** The project of the present address; the frame has loaded it before any view shows. */
export function useProject(): Project {
  return useSuspenseQuery(projectQuery(useProjectId())).data;
}

/** The outline, counted as the present project counts kinds and collections; the last one that was while the two are of different moments. */
export function useOutline() {
  const project = useProject();
  const query = useQuery(outlineQuery(project.id));
  const aligned = useMemo(() => alignOutline(query.data, project), [query.data, project]);
  const last = useRef(aligned);
  if (aligned) last.current = aligned;
  const { error, refetch } = query;
  const data = aligned ?? last.current;
  return data ? { data, error, refetch } : { data: undefined, error, refetch };
}

/** Rows of the outline that belong to a collection, in reading order. */
export function rowsOf(outline: OutlineReply, collection: number): number[] {
  const rows: number[] = [];
  outline.collection.forEach((one, row) => {
    if (one === collection) rows.push(row);
  });
  return rows;
}
