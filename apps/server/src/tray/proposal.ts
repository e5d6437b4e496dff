import { type AnyContentType, contentTypeOf, type ItemContent, type Scheme } from '@coomb/core';

const proposed = new WeakMap<object, { scheme: Scheme; recipe: object }>();

/** The recipe that Coomb proposes for a file, by the scheme as it is: looked for once, for large files take a while. */
export function proposeRecipe(scheme: Scheme, content: ItemContent, type: AnyContentType = contentTypeOf(content.type)): object {
  const known = proposed.get(content);
  if (known?.scheme === scheme) return known.recipe;
  const recipe = type.propose(scheme, content);
  proposed.set(content, { scheme, recipe });
  return recipe;
}
