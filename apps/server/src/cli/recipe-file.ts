import { readFile } from 'node:fs/promises';
import { contentTypeOf, type ItemContent, type Scheme } from '@coomb/core';
import { type RecipeWish, wishFor } from '../gather/apply-recipe.js';
import { UsageError } from './command.js';

/** A recipe from a file, fitted to what it is put on. Throws UsageError when it is no recipe, or one for other files. */
export async function readRecipeFile(scheme: Scheme, path: string, content: ItemContent): Promise<RecipeWish> {
  let json: unknown;
  try {
    json = JSON.parse(await readFile(path, 'utf8'));
  } catch (error) {
    throw new UsageError(`${path} is not a recipe file: ${error instanceof Error ? error.message : String(error)}`);
  }
  const { recipeFile } = await import('@coomb/contract');
  const parsed = recipeFile.safeParse(json);
  if (!parsed.success)
    throw new UsageError(`${path} is not a recipe file: ${parsed.error.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`).join('; ')}`);
  const { body, name } = parsed.data;
  const type = contentTypeOf(content.type);
  if (type.reads === body.reads) return wishFor(type, type.align(scheme, body.recipe, content));
  throw new UsageError(`The recipe "${name}" reads files of another sort (${body.reads}) than this one (${content.type}).`);
}

/** What Coomb proposes for a file, for items of one kind when that is asked. */
export function proposeWish(scheme: Scheme, content: ItemContent, kind: string | undefined): RecipeWish {
  const type = contentTypeOf(content.type);
  return wishFor(type, type.propose(scheme, content, kind));
}
