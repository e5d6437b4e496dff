const WORD = /[\p{L}\p{N}]+/gu;
const COMMON = new Set(
  'a an and any are as at be been by can for from has have if in into is it its may must not of on or shall should that the their then there these this to was when where which while will with within'.split(
    ' ',
  ),
);

/** Words that carry meaning, lower case, plural and verb endings cut: "gates" and "gate" meet. */
export function buildTokens(text: string): string[] {
  const tokens: string[] = [];
  for (const word of text
    .replace(/([\p{Ll}])([\p{Lu}])/gu, '$1 $2')
    .toLowerCase()
    .match(WORD) ?? []) {
    if (word.length < 2 || COMMON.has(word)) continue;
    tokens.push(cutEnding(word));
  }
  return tokens;
}

function cutEnding(word: string): string {
  if (word.length > 5 && word.endsWith('ing')) return word.slice(0, -3);
  if (word.length > 4 && word.endsWith('ed')) return word.slice(0, -2);
  if (word.length > 4 && word.endsWith('ies')) return `${word.slice(0, -3)}y`;
  if (word.length > 3 && word.endsWith('s') && !word.endsWith('ss')) return word.slice(0, -1);
  return word;
}
