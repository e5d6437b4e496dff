const LONGEST = 80;
/** Characters of a text that are looked at. */
const LOOKED_AT = 400;

/** A title for a text that has none: its first words, cut between words. */
export function buildTitle(text: string): string {
  const clean = text.slice(0, LOOKED_AT).trim().replace(/\s+/g, ' ');
  if (clean.length <= LONGEST) return clean;
  const end = clean.lastIndexOf(' ', LONGEST - 2);
  return `${clean.slice(0, end > LONGEST / 2 ? end : LONGEST - 2)}…`;
}
