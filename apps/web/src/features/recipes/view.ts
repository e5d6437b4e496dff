import type { View } from '../../shared/view';

export const recipesView: View = {
  stage: 'gather',
  name: 'Recipes',
  help: 'How files become items. A recipe is made on a sample in Gather and kept from there; everyone in the project can follow it.',
  path: 'gather/recipes',
  load: async () => (await import('./RecipesPage')).RecipesPage,
};
