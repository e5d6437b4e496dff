import { type BodyOf, type Drawing, getDrawing, listDrawings, setBoxes } from '@coomb/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../../../shared/api/client';
import { useChange } from '../../../shared/live/use-change';
import { projectKey } from '../../../shared/api/keys';

export type { Drawing };

export const useDrawings = (project: string, part: { lens?: string } = {}) =>
  useQuery({
    queryKey: [...projectKey(project), 'drawings', part],
    queryFn: () => call(listDrawings, { params: { project }, query: part }),
    placeholderData: keepPreviousData,
  });

export const useSetBoxes = (project: string) =>
  useChange(
    project,
    ({ drawing, ...body }: { drawing: string } & BodyOf<typeof setBoxes>) => call(setBoxes, { params: { project, drawing }, body }),
    'Kept. Undo takes it back.',
  );

export const useDrawing = (project: string, drawing: string) =>
  useQuery({ queryKey: [...projectKey(project), 'drawing', drawing], queryFn: () => call(getDrawing, { params: { project, drawing } }) });
