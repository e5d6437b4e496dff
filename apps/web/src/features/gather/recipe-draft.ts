/** A recipe that somebody is making for a file in the tray; kept in the browser, so that leaving the view loses nothing. */
interface Draft {
  recipe: unknown;
  /** Id of the kept recipe it came from. */
  kept: string | undefined;
}

const keyOf = (tray: string) => `coomb.recipe.${tray}`;

export function keepDraft(tray: string, draft: Draft): void {
  try {
    localStorage.setItem(keyOf(tray), JSON.stringify(draft));
  } catch {
    // A full or forbidden store: the recipe then lives as long as the view.
  }
}

export function findDraft(tray: string): Draft | undefined {
  try {
    const text = localStorage.getItem(keyOf(tray));
    return text === null ? undefined : (JSON.parse(text) as Draft);
  } catch {
    return undefined;
  }
}

export function forgetDraft(tray: string): void {
  localStorage.removeItem(keyOf(tray));
}
