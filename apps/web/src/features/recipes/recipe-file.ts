import { type RecipeBody, recipeFile, type RecipeFile } from '@coomb/contract';
import { readFileOf } from '../../shared/read-json';
import { saveFile } from '../../shared/save-file';

/** Hands a recipe over as a file. */
export function saveRecipeFile(name: string, body: RecipeBody): void {
  const file: RecipeFile = { coombRecipe: 1, name, body };
  saveFile(`${name}.recipe.json`, new Blob([`${JSON.stringify(file, null, 2)}\n`], { type: 'application/json' }));
}

/** Reads a recipe file. Throws with what is wrong with it. */
export function readRecipeFile(file: File): Promise<RecipeFile> {
  return readFileOf(file, recipeFile, 'a recipe file');
}
