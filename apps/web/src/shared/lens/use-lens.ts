import { holdInLens, lookThrough, type OutlineReply } from '@coomb/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { call } from '../api/client';
import { projectKey } from '../api/keys';
import { useOutline, useProject } from '../live/project-queries';
import { useChange } from '../live/use-change';
import { filterOutline } from './filter-outline';
import { useThrough } from './through';

/** What is seen through the lens that is on; undefined where none is. */
export function useLens() {
  const project = useProject();
  const through = useThrough(project.id);
  const query = useQuery({
    queryKey: [...projectKey(project.id), 'lens', through?.lens],
    queryFn: ({ signal }) => call(lookThrough, { params: { project: project.id, lens: through!.lens }, signal }),
    enabled: through !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const nodes = useMemo(() => (query.data ? new Set(query.data.nodes) : undefined), [query.data]);
  if (!through) return undefined;
  // A lens that is kept no more shows everything, and says so beside the project's name.
  return query.error ? { ...through, seen: undefined, nodes: undefined, error: query.error } : { ...through, seen: query.data, nodes, error: null };
}

/** The outline as it is seen through the lens that is on: what it does not show is left out, or the rows that it shows are told as lit. */
export function useSeenOutline() {
  const outline = useOutline();
  const lens = useLens();
  const { data } = outline;
  const [mode, nodes] = [lens?.mode, lens?.nodes];
  const seen = useMemo<OutlineReply | undefined>(() => (data && nodes && mode === 'only' ? filterOutline(data, nodes) : data), [data, nodes, mode]);
  const lit = useMemo(
    () => (data && nodes && mode === 'lit' ? new Set(data.node.flatMap((node, row) => (nodes.has(node) ? [row] : []))) : undefined),
    [data, nodes, mode],
  );
  const isThrough = nodes !== undefined;
  return seen ? { ...outline, data: seen, lit, isThrough } : { ...outline, data: undefined, lit: undefined, isThrough };
}

export const useHoldInLens = (project: string, lens: string) =>
  useChange(project, (body: { items: string[]; as: 'pinned' | 'leftOut' | 'asked' }) => call(holdInLens, { params: { project, lens }, body }));
