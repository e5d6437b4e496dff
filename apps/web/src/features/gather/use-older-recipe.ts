import type { RecipeBody, ReplyOf, listSources } from '@coomb/contract';
import { useEffect, useState } from 'react';

type Source = ReplyOf<typeof listSources>[number];

/**
 * A newer version starts from the recipe that the older one was read by: getting it right once serves every later version. What a person
 * has changed by then stays. Returns the name of the older version while its recipe is followed.
 */
export function useOlderRecipe(older: Source | undefined, isProposed: boolean, put: (body: RecipeBody, kept: string | undefined) => void): string | undefined {
  const [taken, setTaken] = useState<string>();
  useEffect(() => {
    if (!older?.recipe || !isProposed || taken === older.id) return;
    setTaken(older.id);
    put(older.recipe, older.recipeId ?? undefined);
  }, [older, isProposed, taken, put]);
  return older && taken === older.id ? older.name : undefined;
}
