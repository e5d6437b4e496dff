import { tableOf } from '../records/table-of.js';
const MARKS = /(?<=[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}])\p{Mn}+/gu;
const PLAIN = /^[\x20-\x7e\s]*$/;
/** Letters that no decomposition opens. */
const LETTERS = tableOf<string>({ ß: 'ss', ø: 'o', đ: 'd', ł: 'l', æ: 'ae', œ: 'oe', ı: 'i' });
const SPECIAL = new RegExp(`[${Object.keys(LETTERS).join('')}]`, 'g');

/** Text as it is looked for: small letters, one form of each sign, without the accents of Latin, Greek and Cyrillic letters. */
export function fold(text: string): string {
  if (PLAIN.test(text)) return text.toLowerCase();
  return text
    .normalize('NFKD')
    .replace(MARKS, '')
    .normalize('NFC')
    .toLowerCase()
    .replace(SPECIAL, (letter) => LETTERS[letter]!);
}

const WORD = /[\p{L}\p{N}\p{M}]+/gu;

/** Words of a folded text. Scripts without blanks between words give whole runs, which are looked into. */
export function findWords(folded: string): string[] {
  return folded.match(WORD) ?? [];
}

/** The words that somebody looks for, each once. */
export function termsOf(query: string): string[] {
  return [...new Set(findWords(fold(query)))].slice(0, 12);
}

/** Whether a term may stand inside a word: of three signs, or of a script that parts no words. */
export function looksInside(term: string): boolean {
  return (
    term.length > 2 ||
    /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]/u.test(term)
  );
}

/** Where terms stand in a text, in characters of it: at beginnings of words, or inside them where no word begins so. In order, joined where they overlap. */
export function markTerms(text: string, terms: readonly string[]): { marks: [start: number, end: number][]; found: number } {
  const { folded, from } = foldWithPlaces(text);
  const marks: [number, number][] = [];
  let found = 0;
  for (const term of terms) {
    const places: number[] = [];
    for (let at = folded.indexOf(term); at >= 0; at = folded.indexOf(term, at + 1)) places.push(at);
    const starts = places.filter((at) => at === 0 || !/[\p{L}\p{N}\p{M}]/u.test(before(folded, at)));
    const used = starts.length > 0 ? starts : looksInside(term) ? places : [];
    if (used.length > 0) found++;
    for (const at of used) marks.push([from[at]!, from[at + term.length]!]);
  }
  marks.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const joined: [number, number][] = [];
  for (const [start, end] of marks) {
    const last = joined.at(-1);
    if (last && start <= last[1]) last[1] = Math.max(last[1], end);
    else joined.push([start, end]);
  }
  return { marks: joined, found };
}

function before(text: string, at: number): string {
  const low = text.charCodeAt(at - 1);
  return low >= 0xdc00 && low <= 0xdfff ? text.slice(at - 2, at) : text.slice(at - 1, at);
}

/** Signs with the marks that stand on them; halves that belong together stay together. */
const SIGN = /[^\p{M}]?\p{M}*/gu;

/** A folded text, and for each of its characters where it came from; one more for the end. */
function foldWithPlaces(text: string): { folded: string; from: number[] } {
  if (PLAIN.test(text)) return { folded: text.toLowerCase(), from: Array.from({ length: text.length + 1 }, (_, at) => at) };
  let folded = '';
  const from: number[] = [];
  for (const { 0: sign, index } of text.matchAll(SIGN)) {
    const piece = fold(sign);
    for (let at = 0; at < piece.length; at++) from.push(index);
    folded += piece;
  }
  from.push(text.length);
  return { folded, from };
}

/** A piece of a text around its first mark, cut at blanks where there are any, with its marks. */
export function excerpt(text: string, marks: readonly [number, number][], around = 50): { text: string; marks: [number, number][] } {
  const first = marks[0]?.[0] ?? 0;
  let start = Math.max(0, first - around);
  let end = Math.min(text.length, first + around * 2);
  if (start > 0) {
    const blank = text.indexOf(' ', start);
    if (blank >= 0 && blank < first) start = blank + 1;
    else if (isLowHalf(text, start)) start--;
  }
  if (end < text.length) {
    const blank = text.lastIndexOf(' ', end);
    if (blank > first + around / 2) end = blank;
    else if (isLowHalf(text, end)) end++;
  }
  const lead = start > 0 ? '…' : '';
  const shift = lead.length - start;
  return {
    text: `${lead}${text.slice(start, end)}${end < text.length ? '…' : ''}`,
    marks: marks.filter(([from, to]) => from >= start && to <= end).map(([from, to]) => [from + shift, to + shift]),
  };
}

function isLowHalf(text: string, at: number): boolean {
  const code = text.charCodeAt(at);
  return code >= 0xdc00 && code <= 0xdfff;
}
