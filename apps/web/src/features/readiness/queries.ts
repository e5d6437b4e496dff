import { openFigure } from '@coomb/contract';
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
