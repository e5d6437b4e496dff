import type { Meaning, Phrase } from './document-recipe.js';

export interface FoundPhrase {
  meaning: Meaning;
  words: string;
  value: string;
  /** Characters of the text that the words and the value take. */
  start: number;
  end: number;
}

const REFERENCE = String.raw`\[?(?:[A-Z]{1,10} )?(?=[\w./-]*\d)[A-Za-z0-9]+(?:[-_./][A-Za-z0-9]+)*\]?`;
const REFERENCES = new RegExp(String.raw`^${REFERENCE}(?:(?:\s*[,;&]\s*(?:and\s+|or\s+)?|\s+(?:and|or)\s+|\s+)${REFERENCE})*`, 'u');

/** Compiles phrases for use on many texts. Blanks match any run of blanks, case is ignored, a colon after the words is no part of the value. */
export function buildPhrases(phrases: readonly Phrase[]): (text: string) => FoundPhrase[] {
  const known = phrases.filter(({ words, meaning }) => words.trim() && meaning.as !== 'ignore');
  if (known.length === 0) return () => [];
  const compiled = known.map((phrase) => ({ ...phrase, pattern: buildPattern(phrase.words) }));
  return (text) => compiled.flatMap((phrase) => findAll(phrase, text));
}

function buildPattern(words: string): RegExp {
  const escaped = words
    .trim()
    .replace(/:$/, '')
    .split(/\s+/)
    .map((word) => word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'))
    .join('\\s+');
  return new RegExp(`(?<![\\p{L}\\p{N}])${escaped}(?![\\p{L}\\p{N}])\\s*:?\\s*`, 'giu');
}

function findAll({ words, meaning, pattern }: Phrase & { pattern: RegExp }, text: string): FoundPhrase[] {
  const found: FoundPhrase[] = [];
  for (const match of text.matchAll(pattern)) {
    const from = match.index + match[0].length;
    const rest = text.slice(from);
    const value = readValue(meaning, rest);
    if (value) found.push({ words, meaning, value, start: match.index, end: from + rest.indexOf(value) + value.length });
  }
  return found;
}

/** References as far as they go, for links and parents; else all up to the end of the sentence. */
function readValue(meaning: Meaning, rest: string): string {
  const isKey = meaning.as === 'parent' || meaning.as === 'reference' || (meaning.as === 'link' && meaning.by !== 'title');
  const references = isKey ? REFERENCES.exec(rest)?.[0] : undefined;
  return (references ?? /^[^\n;)]*?(?=[.](?:\s|$)|[\n;)]|$)/.exec(rest)?.[0] ?? '').trim();
}

/** The leading words of a passage that somebody points at: "Traces to: SYS-012" gives "Traces to". Empty when nothing leads. */
export function findLeadingWords(passage: string): string {
  const line = passage.trim().split('\n')[0]!;
  const lead = /^(.*?)(?:\s*:|\s+\[?(?=[\w./-]*\d)[A-Z][\w./-]*)/u.exec(line)?.[1] ?? line;
  return lead.trim().slice(0, 100);
}
