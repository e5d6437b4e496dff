/** Words after whose full stop a sentence goes on. */
const SHORTENED = /(?:^|[\s(])(?:e\.g|i\.e|cf|no|nos|fig|sec|approx|vs|ref|max|min)\.$/i;
const END = /[.!?]+["”')\]]*(?=\s+["“'([]?[\p{Lu}\p{Lo}\d]|\s*$)|\n/gu;

/** Where the sentences of a text stand, blanks around them left out. Abbreviations such as "e.g." end none. */
export function findSentences(text: string): { start: number; end: number }[] {
  const found: { start: number; end: number }[] = [];
  let from = 0;
  const add = (until: number) => {
    const part = text.slice(from, until);
    const clean = part.trim();
    if (clean) {
      const start = from + part.length - part.trimStart().length;
      found.push({ start, end: start + clean.length });
    }
    from = until;
  };
  for (const match of text.matchAll(END)) {
    const until = match.index + match[0].length;
    if (match[0].startsWith('.') && SHORTENED.test(text.slice(Math.max(0, until - 12), until))) continue;
    add(until);
  }
  add(text.length);
  return found;
}
