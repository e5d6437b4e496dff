import { type Drawing, getDrawing, listDrawings, listLinks } from '@coomb/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';

export type { Drawing };

export const useDrawings = (project: string) =>
  useQuery({ queryKey: [...projectKey(project), 'drawings'], queryFn: () => call(listDrawings, { params: { project } }) });

export const useDrawing = (project: string, drawing: string) =>
  useQuery({ queryKey: [...projectKey(project), 'drawing', drawing], queryFn: () => call(getDrawing, { params: { project, drawing } }) });

/** All links that items of a collection have. */
export const useLinksOf = (project: string, collection: string | undefined) =>
  useQuery({
    queryKey: [...projectKey(project), 'links', collection, ''],
    queryFn: () => call(listLinks, { params: { project }, query: { left: collection! } }),
    placeholderData: keepPreviousData,
    enabled: collection !== undefined,
  });
