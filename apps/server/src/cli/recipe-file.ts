import { readFile } from 'node:fs/promises';
import { alignExchangeRecipe, alignSheetRecipe, proposeDocumentRecipe, proposeExchangeRecipe, proposeSheetRecipe, type Scheme } from '@coomb/core';
import type { FileContent } from '@coomb/formats';
import type { RecipeWish } from '../gather/apply-recipe.js';
import { UsageError } from './command.js';

type Content = Exclude<FileContent, { type: 'results' }>;

/** A recipe from a file, fitted to what it is put on. Throws UsageError when it is no recipe, or one for other files. */
export async function readRecipeFile(path: string, content: Content): Promise<RecipeWish> {
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
  if (body.reads === 'document' && content.type === 'document') return { documentRecipe: body.recipe };
  if (body.reads === 'sheet' && content.type === 'sheets') return { sheetRecipe: alignSheetRecipe(body.recipe, content.sheets).recipe };
  if (body.reads === 'exchange' && content.type === 'exchange') return { exchangeRecipe: alignExchangeRecipe(body.recipe, content.exchange).recipe };
  throw new UsageError(`The recipe "${name}" reads files of another sort (${body.reads}) than this one (${content.type}).`);
}

/** What Coomb proposes for a file, for items of one kind when that is asked. */
export function proposeWish(scheme: Scheme, content: Content, kind: string | undefined): RecipeWish {
  if (content.type === 'document') return { documentRecipe: proposeDocumentRecipe(scheme, content.document, kind) };
  if (content.type === 'sheets') return { sheetRecipe: proposeSheetRecipe(scheme, content.sheets, kind) };
  if (content.type === 'exchange') return { exchangeRecipe: proposeExchangeRecipe(scheme, content.exchange, kind) };
  return {};
}
