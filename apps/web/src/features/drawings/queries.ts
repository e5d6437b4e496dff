import { type BodyOf, type Drawing, getDrawing, keepDrawing, listDrawings, placeDrawing, planDrawing, setBoxes } from '@coomb/contract';
import type { HandPlaces, MadeDefinition } from '@coomb/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { useChange } from '../../shared/live/use-change';
import { projectKey } from '../../shared/api/keys';

export type { Drawing };

export const useDrawings = (project: string) =>
  useQuery({ queryKey: [...projectKey(project), 'drawings'], queryFn: () => call(listDrawings, { params: { project } }) });

export const usePlan = (project: string, definition: MadeDefinition | undefined) =>
  useQuery({
    queryKey: [...projectKey(project), 'made', definition],
    queryFn: () => call(planDrawing, { params: { project }, body: { ...definition!, ...listsOf(definition!) } }),
    placeholderData: keepPreviousData,
    enabled: definition !== undefined,
  });

export const useKeepDrawing = (project: string) =>
  useChange(project, ({ definition, ...body }: { name: string; definition: MadeDefinition; hand: HandPlaces }) =>
    call(keepDrawing, { params: { project }, body: { ...body, hand: { ...body.hand }, definition: { ...definition, ...listsOf(definition) } } }),
  );

export const usePlaceDrawing = (project: string) =>
  useChange(project, ({ drawing, revision, hand, definition }: { drawing: string; revision: number; hand: HandPlaces; definition: MadeDefinition }) =>
    call(placeDrawing, { params: { project, drawing }, body: { revision, hand: { ...hand }, definition: { ...definition, ...listsOf(definition) } } }),
  );

/** Lists of a definition as a call takes them. */
const listsOf = ({ detail, without, opened, closed }: MadeDefinition) => ({
  detail: [...detail],
  ...{ without: without && [...without], opened: opened && [...opened], closed: closed && [...closed] },
});

export const useSetBoxes = (project: string) =>
  useChange(
    project,
    ({ drawing, ...body }: { drawing: string } & BodyOf<typeof setBoxes>) => call(setBoxes, { params: { project, drawing }, body }),
    'Kept. Undo takes it back.',
  );

export const useDrawing = (project: string, drawing: string) =>
  useQuery({ queryKey: [...projectKey(project), 'drawing', drawing], queryFn: () => call(getDrawing, { params: { project, drawing } }) });
