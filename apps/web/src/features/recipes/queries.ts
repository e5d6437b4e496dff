import { keepRecipe, listRecipes, type RecipeBody, withdrawRecipe } from '@coomb/contract';
import { useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';
import { useChange } from '../../shared/live/use-change';

export function useRecipes(project: string) {
  return useQuery({ queryKey: [...projectKey(project), 'recipes'], queryFn: () => call(listRecipes, { params: { project } }) });
}

export const useKeepRecipe = (project: string) =>
  useChange(project, (body: { id?: string; name: string; body: RecipeBody }) => call(keepRecipe, { params: { project }, body }), 'Recipe kept');

export const useWithdrawRecipe = (project: string) =>
  useChange(project, (recipe: string) => call(withdrawRecipe, { params: { project, recipe } }), 'Taken away. Undo brings it back.');
