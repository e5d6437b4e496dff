import { stemmer } from 'stemmer';

const WORD = /\p{N}+(?:[.,]\p{N}+)*|\p{L}[\p{L}\p{N}]*/gu;
const COMMON = new Set(
  (
    'a an and any are as at be been but by can could did do does each for from had has have he her his how if in into is it its may might more most must my no not of on one only or other our ' +
    'shall she should so some such than that the their them then there these they this those to two up us use used uses using very was we were what when where which while who why will with within would you your'
  ).split(' '),
);
/** What may follow a number as its unit: "3.60 m" is one word that tells much. */
const UNIT = /^(?:[a-zµ°%]{1,3}|min|bar|mbar|kwh|mwh)$/iu;

const stems = new Map<string, string>();
const MOST_STEMS = 100_000;

/** Words of a text that tell something, in one form each: names are split where their case changes, numbers keep their units. */
export function tellingWords(text: string): string[] {
  const found: string[] = [];
  readTellingWords(text, (form) => found.push(form));
  return found;
}

/** How a text writes each of its telling words where it first does, by the form that they are compared in. */
export function writtenWords(text: string): Map<string, string> {
  const found = new Map<string, string>();
  readTellingWords(text, (form, written) => {
    if (!found.has(form)) found.set(form, written);
  });
  return found;
}

/** As `tellingWords`, one after the other; `written` is as the text has it. */
export function readTellingWords(text: string, give: (form: string, written: string) => void): void {
  const words = text.replace(/([\p{Ll}\p{N}])([\p{Lu}])/gu, '$1 $2').match(WORD) ?? [];
  for (let at = 0; at < words.length; at++) {
    const word = words[at]!;
    if (/^\p{N}/u.test(word)) {
      const unit = words[at + 1];
      if (word.length > 1) give(word, word);
      if (unit !== undefined && UNIT.test(unit) && !COMMON.has(unit.toLowerCase())) give(`${word} ${unit.toLowerCase()}`, `${word} ${unit}`);
      continue;
    }
    const plain = word.toLowerCase();
    if (plain.length > 1 && !COMMON.has(plain)) give(stemOf(plain), plain);
  }
}

function stemOf(word: string): string {
  let stem = stems.get(word);
  if (stem === undefined) {
    stem = stemmer(word);
    if (stems.size >= MOST_STEMS) stems.clear();
    stems.set(word, stem);
  }
  return stem;
}
