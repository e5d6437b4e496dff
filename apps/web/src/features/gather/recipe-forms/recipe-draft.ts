import { recipeBody, type RecipeBody } from '@coomb/contract';
import { z } from 'zod';

/** A recipe that somebody is making for a file in the tray; kept in the browser, so that leaving the view loses nothing. */
const draftSchema = z.object({
  body: recipeBody,
  /** Id of the kept recipe it came from. */
  kept: z.string().optional(),
});
export interface RecipeDraft {
  body: RecipeBody;
  kept: string | undefined;
}

const keyOf = (tray: string) => `coomb.recipe.${tray}`;

export function keepDraft(tray: string, draft: RecipeDraft): void {
  try {
    localStorage.setItem(keyOf(tray), JSON.stringify(draft));
  } catch {
    // A full or forbidden store: the recipe then lives as long as the view.
  }
}

/** The draft for a file; undefined where there is none, or one that this version of Coomb cannot follow. */
export function findDraft(tray: string): RecipeDraft | undefined {
  try {
    const parsed = draftSchema.safeParse(JSON.parse(localStorage.getItem(keyOf(tray)) ?? 'null'));
    return parsed.success ? { body: parsed.data.body as RecipeBody, kept: parsed.data.kept } : undefined;
  } catch {
    return undefined;
  }
}

export function forgetDraft(tray: string): void {
  localStorage.removeItem(keyOf(tray));
}
