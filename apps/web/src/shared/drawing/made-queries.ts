import { keepDrawing, placeDrawing, planDrawing } from '@coomb/contract';
import type { HandPlaces, MadeDefinition } from '@coomb/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../api/client';
import { projectKey } from '../api/keys';
import { useChange } from '../live/use-change';

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
