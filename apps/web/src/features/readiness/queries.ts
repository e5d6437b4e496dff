import { listFindings, openFigure, trendFigure } from '@coomb/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';

export { useReadiness } from '../section/queries';

/** What a figure is looked at of: a collection, or what is seen through a lens. */
export interface Part {
  collection?: string;
  lens?: string;
}

export function useFigure(project: string, figure: string, part: Part) {
  return useQuery({
    queryKey: [...projectKey(project), 'figure', figure, part],
    queryFn: () => call(openFigure, { params: { project, figure }, query: part }),
    placeholderData: keepPreviousData,
  });
}

/** What the figure was after some of the changes. */
export function useFigureTrend(project: string, figure: string, part: Part) {
  return useQuery({
    queryKey: [...projectKey(project), 'figure trend', figure, part],
    queryFn: ({ signal }) => call(trendFigure, { params: { project, figure }, query: { points: 16, ...part }, signal }),
  });
}

/** What each rule of findings found, without the findings themselves. */
export function useFindingRules(project: string, part: { lens?: string }) {
  return useQuery({
    queryKey: [...projectKey(project), 'finding rules', part],
    queryFn: ({ signal }) => call(listFindings, { params: { project }, query: { limit: 1, ...part }, signal }),
    placeholderData: keepPreviousData,
  }).data?.rules;
}
