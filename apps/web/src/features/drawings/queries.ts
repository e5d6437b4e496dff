import { type Drawing, getDrawing, listDrawings } from '@coomb/contract';
import { useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';

export type { Drawing };

export const useDrawings = (project: string) =>
  useQuery({ queryKey: [...projectKey(project), 'drawings'], queryFn: () => call(listDrawings, { params: { project } }) });

export const useDrawing = (project: string, drawing: string) =>
  useQuery({ queryKey: [...projectKey(project), 'drawing', drawing], queryFn: () => call(getDrawing, { params: { project, drawing } }) });
