const LONGEST = 80;
/** Characters of a text that are looked at. */
const LOOKED_AT = 400;

const LONGEST_KEPT = 500;

/** A title as it is stored: longer ones are cut at a word, which the sign at the end says. */
export function fitTitle(title: string): string {
  const clean = title.trim();
  if (clean.length <= LONGEST_KEPT) return clean;
  const end = clean.lastIndexOf(' ', LONGEST_KEPT - 1);
  return `${clean.slice(0, end > LONGEST_KEPT / 2 ? end : LONGEST_KEPT - 1)}…`;
}

/** A title for a text that has none: its first words, cut between words. */
export function buildTitle(text: string): string {
  const clean = text.slice(0, LOOKED_AT).trim().replace(/\s+/g, ' ');
  if (clean.length <= LONGEST) return clean;
  const end = clean.lastIndexOf(' ', LONGEST - 2);
  return `${clean.slice(0, end > LONGEST / 2 ? end : LONGEST - 2)}…`;
}
