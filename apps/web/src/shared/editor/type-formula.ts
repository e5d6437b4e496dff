import temml from 'temml';

/** How a formula was typed, if it says so. */
export function typedFormula(mathml: string): string {
  const note = new DOMParser().parseFromString(mathml, 'text/html').querySelector('annotation[encoding="application/x-tex"]');
  return note?.textContent ?? '';
}

/** A formula typed as TeX, as MathML that carries how it was typed. `own` is a line of its own. Throws an Error that says what cannot be read, and where. */
export function buildFormula(typed: string, own: boolean): string {
  let drawn: string;
  try {
    drawn = temml.renderToString(typed, { displayMode: own, annotate: true, throwOnError: true });
  } catch (error) {
    throw new Error((error instanceof Error ? error.message : 'This cannot be read').split('\n')[0]!.replace(/:\s*$/, '').trim());
  }
  // Looks are the page's; what is stored is the formula.
  return drawn.replace(/ (?:class|style|xmlns|href|id)="[^"]*"/g, '');
}
