import type { Scheme } from '../scheme/scheme.js';
import type { Issue } from '../source/issue.js';
import type { ModelDocument } from '../source/model.js';
import type { ModelRecipe } from './model-recipe.js';
import { proposeModelRecipe } from './propose-model-recipe.js';

/** A kept recipe fitted to a file: sorts that it does not know are as they would be proposed. */
export function alignModelRecipe(
  scheme: Scheme,
  recipe: ModelRecipe,
  model: Pick<ModelDocument, 'elements' | 'relations'>,
): { recipe: ModelRecipe; issues: Issue[] } {
  const proposed = proposeModelRecipe(scheme, model);
  const known = new Map(recipe.elements.map((rule) => [rule.sort, rule]));
  const knownRelations = new Map(recipe.relations.map((rule) => [rule.sort, rule]));
  const fresh = proposed.elements.filter(({ sort }) => !known.has(sort));
  const elements = proposed.elements.map((rule) => {
    const own = known.get(rule.sort);
    if (!own) return rule;
    const values = new Map(own.values.map((value) => [value.name, value]));
    return { ...own, values: rule.values.map((value) => values.get(value.name) ?? value) };
  });
  const relations = proposed.relations.map((rule) => knownRelations.get(rule.sort) ?? rule);
  const gone = recipe.elements.filter(({ sort, becomes }) => becomes === 'items' && !proposed.elements.some((rule) => rule.sort === sort));
  const issues: Issue[] = [
    ...fresh.map(
      ({ label, becomes }): Issue => ({
        severity: 'note',
        code: 'sort-new',
        at: label,
        message: `The recipe does not know the sort "${label}"; ${becomes === 'items' ? 'it becomes items as proposed' : becomes === 'detail' ? 'it is a detail of its owner, as proposed' : 'it stays in the file'}`,
      }),
    ),
    ...gone.map(
      ({ label }): Issue => ({
        severity: 'note',
        code: 'sort-missing',
        at: label,
        message: `The recipe makes items of "${label}", of which the file has none`,
      }),
    ),
  ];
  return { recipe: { ...recipe, elements, relations }, issues };
}
