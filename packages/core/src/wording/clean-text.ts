/** Characters that no XML document, and so no report and no exchange file, may hold; halves of pairs and NUL break more. */
const UNSTORABLE = /[\0-\x08\x0b\x0c\x0e-\x1f\ufffe\uffff\p{Cs}]/u;
const UNSTORABLE_ALL = /[\0-\x08\x0e-\x1f\ufffe\uffff\p{Cs}]/gu;
/** Line and page breaks that word processors write as characters. */
const SOFT_BREAKS = /\r?[\x0b\x0c\u2028\u2029]/g;

/** What became of a text: soft line breaks are line breaks, characters that cannot be stored are gone. */
export interface CleanedText {
  text: string;
  breaks: number;
  dropped: number;
}

/** Cleans a text; in markup a soft line break becomes an element. What needs no cleaning comes back as it is. */
export function cleanText(text: string, isMarkup = false): CleanedText {
  if (!UNSTORABLE.test(text) && !/[\u2028\u2029]/.test(text)) return { text, breaks: 0, dropped: 0 };
  let [breaks, dropped] = [0, 0];
  const cleaned = text
    .replace(SOFT_BREAKS, () => {
      breaks++;
      return isMarkup ? '<br />' : '\n';
    })
    .replace(UNSTORABLE_ALL, () => {
      dropped++;
      return '';
    });
  return { text: cleaned, breaks, dropped };
}

/** The first character of a text that cannot be stored: as people name it, and where, counted from 1. */
export function findUnstorable(text: string): { name: string; at: number } | undefined {
  const found = UNSTORABLE_ALL.exec(text);
  UNSTORABLE_ALL.lastIndex = 0;
  if (!found) return undefined;
  return { name: `U+${found[0].charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')}`, at: found.index + 1 };
}

/** Cleans every text in a value, in place, and tells what that was. Properties named `html` (and their like) are markup. */
export function cleanAllTexts(value: unknown, isMarkup: (property: string) => boolean): { breaks: number; dropped: number; texts: number } {
  const told = { breaks: 0, dropped: 0, texts: 0 };
  const seen = new Set<object>();
  const open: object[] = typeof value === 'object' && value !== null ? [value] : [];
  const clean = (text: string, property: string): string => {
    const cleaned = cleanText(text, isMarkup(property));
    if (cleaned.breaks + cleaned.dropped > 0) {
      told.breaks += cleaned.breaks;
      told.dropped += cleaned.dropped;
      told.texts++;
    }
    return cleaned.text;
  };
  for (let at = open.pop(); at; at = open.pop()) {
    if (seen.has(at) || ArrayBuffer.isView(at)) continue;
    seen.add(at);
    if (at instanceof Map) {
      for (const [key, one] of at) {
        if (typeof one === 'string') at.set(key, clean(one, ''));
        else if (typeof one === 'object' && one !== null) open.push(one);
      }
      continue;
    }
    const record = at as Record<string, unknown>;
    for (const key of Object.keys(record)) {
      const one = record[key];
      if (typeof one === 'string') {
        const cleaned = clean(one, key);
        if (cleaned !== one) record[key] = cleaned;
      } else if (typeof one === 'object' && one !== null) open.push(one);
    }
  }
  return told;
}
