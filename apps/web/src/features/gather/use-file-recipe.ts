import type { listSources, RecipeBody, ReplyOf } from '@coomb/contract';
import type { Issue } from '@coomb/core';
import { useDeferredValue, useEffect, useState } from 'react';

type Source = ReplyOf<typeof listSources>[number];

/**
 * The recipe that a file in the tray is read by: proposed, put in its place, or changed by hand. `fit` fits one that was put to this file,
 * and tells where it does not. `deferred` is the same recipe, a moment later while somebody types.
 */
export function useFileRecipe<Recipe>(
  reads: RecipeBody['reads'],
  proposed: Recipe,
  fit: (recipe: Recipe, kept: string | undefined) => { recipe: Recipe; issues: Issue[] },
) {
  const [recipe, setRecipe] = useState(proposed);
  const [kept, setKept] = useState<string>();
  const [departures, setDepartures] = useState<Issue[]>([]);
  const put = (body: RecipeBody, id: string | undefined) => {
    if (body.reads !== reads) return;
    const fitted = fit(body.recipe as Recipe, id);
    setRecipe(fitted.recipe);
    setDepartures(fitted.issues);
    setKept(id);
  };
  return { recipe, setRecipe, deferred: useDeferredValue(recipe), kept, departures, put, isProposed: recipe === proposed };
}

/**
 * A newer version starts from the recipe that the older one was read by: getting it right once serves every later version. What a person
 * has changed by then stays. Returns the name of the older version whose recipe was taken.
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
