import { countElementSorts, countRelationSorts } from '../recipe/element-sort.js';
import { alignModelRecipe } from '../recipe/align-model-recipe.js';
import { type ModelRecipe, readModel } from '../recipe/model-recipe.js';
import { proposeModelRecipe } from '../recipe/propose-model-recipe.js';
import { cutModel, type ModelDocument } from '../source/model.js';
import type { ContentType } from './content-type.js';

/** Elements of a model that a page is given to make a recipe by. */
const MOST_SHOWN = 5000;

/** Elements, relations and drawings of a model. */
export const model: ContentType<'model', { model: ModelDocument }, ModelRecipe> = {
  type: 'model',
  reads: 'model',
  propose: (scheme, content) => proposeModelRecipe(scheme, content.model),
  read: (scheme, recipe, content) => readModel(scheme, recipe, content.model),
  show: (_, { model: whole }) => {
    const { unknown: __, ...shown } = cutModel(whole, MOST_SHOWN);
    return {
      ...shown,
      drawings: whole.drawings.map(({ shapes, routes, ...drawing }) => ({ ...drawing, shapes: shapes.length, routes: routes.length })),
      total: whole.elements.length,
      elementSorts: countElementSorts(whole),
      relationSorts: countRelationSorts(whole),
    };
  },
  align: (scheme, recipe, content) => alignModelRecipe(scheme, recipe, content.model).recipe,
  // Sorts that the older version did not have are as they would be proposed.
  inherit: (scheme, recipe, content) => alignModelRecipe(scheme, recipe, content.model).recipe,
  owns: (recipe) => 'elements' in recipe,
  parts: (content) => content.model.drawings.map(({ name, shapes }) => ({ name: name || 'Unnamed drawing', rows: shapes.length })),
};
