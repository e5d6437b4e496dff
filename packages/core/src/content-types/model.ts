import { applyModelRecipe, readModel } from '../recipe/model-recipe.js';
import type { ModelDocument } from '../source/model.js';
import type { ContentType } from './content-type.js';

/** Elements, relations and drawings of a model; what becomes of each follows from the roles of the scheme. */
export const model: ContentType<'model', { model: ModelDocument }, object> = {
  type: 'model',
  reads: null,
  propose: () => ({}),
  read: (scheme, _, content) => readModel(scheme, content.model),
  show: (scheme, { model: { exporter, drawings, relations, ...rest } }) => ({
    exporter,
    outcome: applyModelRecipe(scheme, { exporter, drawings, relations, ...rest }),
    drawings: drawings.map(({ name, shapes }) => ({ name, shapes: shapes.length })),
    relations: relations.length,
  }),
  align: (recipe) => recipe,
  owns: () => false,
};
