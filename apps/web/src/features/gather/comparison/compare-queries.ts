import { type BodyOf, compareFile, type Comparison } from '@coomb/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call } from '../../../shared/api/client';
import { projectKey } from '../../../shared/api/keys';
import { isWaiting } from '../queries';

export type RecipeWish = Pick<NonNullable<BodyOf<typeof compareFile>>, 'documentRecipe' | 'sheetRecipe' | 'exchangeRecipe' | 'modelRecipe'>;
export type Pairs = [number, string | null][];

/** The comparison of a file in the tray with what came of an older version; follows every change of the project. */
export function useComparison(project: string, tray: string, source: string, recipe: RecipeWish, pairs: Pairs, other = false) {
  return useQuery<Comparison>({
    queryKey: [...projectKey(project), 'compare', tray, source, recipe, pairs, other],
    enabled: () => source !== '' && isWaiting(tray),
    queryFn: () => call(compareFile, { params: { project, tray }, body: { source, ...(other && { other }), pairs, ...recipe } }),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });
}
