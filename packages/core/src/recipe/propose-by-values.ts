import type { Meaning } from './document-recipe.js';

interface Column {
  name: string;
  meaning: Meaning;
}

/** Rows that are looked at. */
const ROWS = 400;
export const LONGEST_REFERENCE = 40;
const SHORTEST_TEXT = 25;

/**
 * What columns most likely are whose names say nothing: the first whose values are short, different and numbered holds references; the one with
 * the longest words the text. `valuesOf` gives the values of a column below the header; `isReference` may know the shape of references. A table
 * without any is taken for items only when asked (`always`): then something of it is proposed whatever it holds.
 */
export function proposeByValues(
  columns: readonly Column[],
  valuesOf: (column: number) => readonly string[],
  { isReference, always = false }: { isReference?: ((text: string) => boolean) | undefined; always?: boolean } = {},
): Column[] {
  const has = (as: Meaning['as']) => columns.some(({ meaning }) => meaning.as === as);
  const open = columns.flatMap(({ meaning }, at) => (meaning.as === 'ignore' ? [{ at, values: valuesOf(at).slice(0, ROWS) }] : []));
  const reference = has('reference') ? undefined : open.find(({ values }) => areReferences(values, isReference));
  if (!always && !has('reference') && !reference) return [...columns];
  const sizes = open.filter((one) => one !== reference).map(({ at, values }) => ({ at, size: meanLength(values) }));
  // Beside a title only words that bind are surely the text; others may be remarks.
  const mayBeText = sizes.filter(({ at }) => !has('title') || mostlyBind(valuesOf(at).slice(0, ROWS)));
  const [longest] = has('text') ? [] : mayBeText.sort((a, b) => b.size - a.size);
  const text = longest && longest.size >= SHORTEST_TEXT ? longest.at : undefined;
  const isTexted = has('text') || text !== undefined;
  // Short words of their own in each row, beside long ones, are titles; without long ones the best of them are all there is.
  const titles = has('title') ? [] : open.filter(({ at, values }) => at !== reference?.at && at !== text && areTitles(values));
  const title = isTexted || !(has('reference') || reference) ? titles[0] : undefined;
  const none = !isTexted && !title && !has('title') && !has('reference') && !reference;
  const only = none ? sizes.filter(({ size }) => size > 0).sort((a, b) => b.size - a.size)[0] : undefined;
  return columns.map((column, at): Column => {
    if (at === reference?.at) return { ...column, meaning: { as: 'reference' } };
    if (at === text) return { ...column, meaning: { as: 'text' } };
    if (at === title?.at || at === only?.at) return { ...column, meaning: { as: 'title' } };
    return column;
  });
}

const LONGEST_TITLE = 90;
const REFERENCE = /^[\p{L}\d]+(?:[-_. ][\p{L}\d]+)*[-_. ]?\d+$/u;

/** Words, mostly different ones, none of them long. */
function areTitles(values: readonly string[]): boolean {
  const filled = values.map((value) => value.trim()).filter(Boolean);
  const worded = filled.filter((value) => value.length <= LONGEST_TITLE && /\p{L}{2}/u.test(value) && !REFERENCE.test(value));
  return (
    filled.length > 0 &&
    worded.length * 10 >= filled.length * 9 &&
    new Set(filled).size * 10 >= filled.length * 8 &&
    filled.length * 10 >= values.length * 7 &&
    meanLength(filled) >= 4
  );
}

function areReferences(values: readonly string[], isReference: ((text: string) => boolean) | undefined): boolean {
  const filled = values.map((value) => value.trim()).filter(Boolean);
  if (filled.length < 2) return false;
  if (isReference && filled.filter(isReference).length * 10 >= filled.length * 6) return true;
  const fitting = filled.filter((value) => value.length <= LONGEST_REFERENCE && /[A-Za-z]/.test(value) && /\d$/.test(value));
  return fitting.length * 10 >= filled.length * 9 && new Set(filled).size * 20 >= filled.length * 19 && filled.length * 10 >= values.length * 8;
}

const BINDING = /(?<!\p{L})(?:shall|must|should|will|muss|soll)(?!\p{L})/iu;

function mostlyBind(values: readonly string[]): boolean {
  const filled = values.filter((value) => value.trim());
  return filled.filter((value) => BINDING.test(value)).length * 2 > filled.length;
}

function meanLength(values: readonly string[]): number {
  return values.reduce((sum, value) => sum + value.length, 0) / Math.max(1, values.length);
}
