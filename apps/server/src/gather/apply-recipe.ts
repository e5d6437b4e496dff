import type { BodyOf, importFile } from '@coomb/contract';
import { CoombError } from '@coomb/contract/errors';
import { type AnyContentType, contentTypeOf, finish, type ItemContent, type RecipeOutcome, type Scheme, type Stepwise } from '@coomb/core';
import { proposeRecipe } from '../tray/proposal.js';

/** A recipe that a request names by what it reads: `documentRecipe`, `sheetRecipe`, `exchangeRecipe`, `modelRecipe`. */
export type RecipeWish = Pick<NonNullable<BodyOf<typeof importFile>>, 'documentRecipe' | 'sheetRecipe' | 'exchangeRecipe' | 'modelRecipe'>;

const keyOf = ({ reads }: AnyContentType): string => `${reads}Recipe`;

/** The recipe that a request names for content of a sort. */
export const wishedRecipe = (type: AnyContentType, wish: RecipeWish): object | undefined => (wish as Record<string, object | undefined>)[keyOf(type)];

/** A request for one recipe for content of a sort. */
export const wishFor = (type: AnyContentType, recipe: object): RecipeWish => (type.reads === null ? {} : { [keyOf(type)]: recipe });

/** The recipe asked for, else the one that Coomb proposes for the file: what is followed is also what is kept with the source. */
export function fillRecipe(scheme: Scheme, content: ItemContent, wish: RecipeWish, type = contentTypeOf(content.type)): RecipeWish {
  const recipe = wishedRecipe(type, wish) ?? proposeRecipe(scheme, content, type);
  return wishFor(type, type.complete?.(recipe, content) ?? recipe);
}

/** What becomes of a file by the recipe asked for, or the one that Coomb proposes. Refuses a recipe that cannot be followed with `input-invalid`. */
export function applyRecipe(scheme: Scheme, content: ItemContent, wish: RecipeWish, type = contentTypeOf(content.type)): RecipeOutcome {
  return finish(followRecipe(scheme, content, wish, type));
}

/** As `applyRecipe`, part by part. */
export function* followRecipe(scheme: Scheme, content: ItemContent, wish: RecipeWish, type = contentTypeOf(content.type)): Stepwise<RecipeOutcome> {
  try {
    return yield* type.read(scheme, wishedRecipe(type, fillRecipe(scheme, content, wish, type)) ?? {}, content);
  } catch (error) {
    if (error instanceof RangeError) throw new CoombError('input-invalid', `${error.message}.`, undefined, { cause: error });
    throw error;
  }
}
