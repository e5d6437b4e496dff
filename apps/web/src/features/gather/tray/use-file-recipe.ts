import type { listSources, RecipeBody, ReplyOf } from '@coomb/contract';
import type { Issue } from '@coomb/core';
import { useDeferredValue, useEffect, useState } from 'react';
import { findDraft, forgetDraft, keepDraft } from '../recipe-forms/recipe-draft';

type Source = ReplyOf<typeof listSources>[number];

/**
 * The recipe that a file in the tray is read by: proposed, put in its place, or changed by hand. `fit` fits one that was put to this file,
 * and tells where it does not. What is changed by hand is kept until the file is imported. `deferred` is the same recipe, a moment later while somebody types.
 */
export function useFileRecipe<Recipe>(
  tray: string,
  reads: RecipeBody['reads'],
  proposed: Recipe,
  fit: (recipe: Recipe, kept: string | undefined) => { recipe: Recipe; issues: Issue[] },
) {
  const [draft] = useState(() => findDraft(tray));
  const [recipe, show] = useState<Recipe>(() => (draft?.body.reads === reads ? (draft.body.recipe as Recipe) : proposed));
  const [kept, setKept] = useState<string | undefined>(draft?.kept);
  const [departures, setDepartures] = useState<Issue[]>([]);
  const put = (body: RecipeBody, id: string | undefined) => {
    if (body.reads !== reads) return;
    const fitted = fit(body.recipe as Recipe, id);
    show(fitted.recipe);
    forgetDraft(tray);
    setDepartures(fitted.issues);
    setKept(id);
  };
  const setRecipe = (changed: Recipe) => {
    show(changed);
    keepDraft(tray, { body: { reads, recipe: changed } as RecipeBody, kept });
  };
  return { recipe, setRecipe, deferred: useDeferredValue(recipe), kept, departures, put, isProposed: recipe === proposed };
}

/**
 * A newer version starts from the recipe that the older one was read by: getting it right once serves every later version. What a person
 * has changed by then stays. Returns the name of the older version whose recipe was taken.
 */
export function useOlderRecipe(
  older: Source | undefined,
  name: string,
  reads: RecipeBody['reads'],
  isProposed: boolean,
  put: (body: RecipeBody, kept: string | undefined) => void,
): string | undefined {
  const [taken, setTaken] = useState<string>();
  useEffect(() => {
    // What came as a document may come back as a sheet, or as text of another format whose headings and labels are its own.
    if (older?.recipe?.reads !== reads || !isProposed || taken === older.id) return;
    if (reads === 'document' && endingOf(older.name) !== endingOf(name)) return;
    setTaken(older.id);
    put(older.recipe, older.recipeId ?? undefined);
  }, [older, name, reads, isProposed, taken, put]);
  return older && taken === older.id ? older.name : undefined;
}

const endingOf = (name: string) => /\.\w+$/.exec(name)?.[0].toLowerCase();
