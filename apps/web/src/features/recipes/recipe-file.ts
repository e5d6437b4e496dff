import { type RecipeBody, recipeFile, type RecipeFile } from '@coomb/contract';
import { saveFile } from '../../shared/save-file';

/** Hands a recipe over as a file. */
export function saveRecipeFile(name: string, body: RecipeBody): void {
  const file: RecipeFile = { coombRecipe: 1, name, body };
  saveFile(`${name}.recipe.json`, new Blob([`${JSON.stringify(file, null, 2)}\n`], { type: 'application/json' }));
}

/** Reads a recipe file. Throws with what is wrong with it. */
export async function readRecipeFile(file: File): Promise<RecipeFile> {
  let json: unknown;
  try {
    json = JSON.parse(await file.text());
  } catch {
    throw new Error(`${file.name} is not a recipe file: it is no JSON.`);
  }
  const parsed = recipeFile.safeParse(json);
  if (parsed.success) return parsed.data;
  const [issue] = parsed.error.issues;
  throw new Error(`${file.name} is not a recipe file: ${issue!.path.join('.') || 'the whole'}: ${issue!.message}.`);
}
