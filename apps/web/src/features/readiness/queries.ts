import { listFindings, openFigure, trendFigure } from '@coomb/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';

export { useReadiness } from '../section/queries';

export function useFigure(project: string, figure: string, collection: string | undefined) {
  return useQuery({
    queryKey: [...projectKey(project), 'figure', figure, collection],
    queryFn: () => call(openFigure, { params: { project, figure }, query: collection ? { collection } : {} }),
    placeholderData: keepPreviousData,
  });
}

/** What the figure was after some of the changes. */
export function useFigureTrend(project: string, figure: string, collection: string | undefined) {
  return useQuery({
    queryKey: [...projectKey(project), 'figure trend', figure, collection],
    queryFn: ({ signal }) => call(trendFigure, { params: { project, figure }, query: { points: 16, ...(collection && { collection }) }, signal }),
  });
}

/** What each rule of findings found, without the findings themselves. */
export function useFindingRules(project: string) {
  return useQuery({
    queryKey: [...projectKey(project), 'finding rules'],
    queryFn: ({ signal }) => call(listFindings, { params: { project }, query: { limit: 1 }, signal }),
    placeholderData: keepPreviousData,
  }).data?.rules;
}
