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

/** Quick to look for, in any text without pairs. */
const MAYBE = /[\0-\x08\x0b\x0c\x0e-\x1f\u2028\u2029\ud800-\udfff\ufffe\uffff]/;
const needsCleaning = (text: string) => MAYBE.test(text) && (UNSTORABLE.test(text) || /[\u2028\u2029]/.test(text));

/** Cleans a text; in markup a soft line break becomes an element. What needs no cleaning comes back as it is. */
export function cleanText(text: string, isMarkup = false): CleanedText {
  if (!needsCleaning(text)) return { text, breaks: 0, dropped: 0 };
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

/**
 * Cleans every text in a value, in place, and tells what that was. Properties named `html` (and their like) are markup. Takes no memory to speak
 * of beside the value: a file may hold a million small things.
 */
export function cleanAllTexts(value: unknown, isMarkup: (property: string) => boolean): { breaks: number; dropped: number; texts: number } {
  const told = { breaks: 0, dropped: 0, texts: 0 };
  const clean = (text: string, property: string): string => {
    if (!needsCleaning(text)) return text;
    const { breaks, dropped, text: cleaned } = cleanText(text, isMarkup(property));
    told.breaks += breaks;
    told.dropped += dropped;
    told.texts++;
    return cleaned;
  };
  // What holds something may hold itself, and is looked into once; what holds nothing but words may be looked at twice.
  const seen = new Set<object>();
  const open: { inside: readonly unknown[]; at: number }[] = [{ inside: [value], at: 0 }];
  for (let last = open.at(-1); last; last = open.at(-1)) {
    if (last.at === last.inside.length) {
      open.pop();
      continue;
    }
    const one = last.inside[last.at++];
    if (typeof one !== 'object' || one === null || ArrayBuffer.isView(one) || seen.has(one)) continue;
    const inside = one instanceof Map ? cleanMap(one, clean) : Array.isArray(one) ? cleanList(one, clean) : cleanRecord(one as Record<string, unknown>, clean);
    if (inside.length === 0) continue;
    seen.add(one);
    open.push({ inside, at: 0 });
  }
  return told;
}

type Clean = (text: string, property: string) => string;
const NOTHING: readonly unknown[] = [];

/** Cleans the texts of a list; gives what else may hold some. */
function cleanList(list: unknown[], clean: Clean): readonly unknown[] {
  let holds = false;
  for (let at = 0; at < list.length; at++) {
    const one = list[at];
    if (typeof one === 'string') {
      const cleaned = clean(one, String(at));
      if (cleaned !== one) list[at] = cleaned;
    } else if (typeof one === 'object' && one !== null) holds = true;
  }
  return holds ? list : NOTHING;
}

function cleanRecord(record: Record<string, unknown>, clean: Clean): readonly unknown[] {
  let inside: unknown[] | undefined;
  for (const key of Object.keys(record)) {
    const one = record[key];
    if (typeof one === 'string') {
      const cleaned = clean(one, key);
      if (cleaned !== one) record[key] = cleaned;
    } else if (typeof one === 'object' && one !== null && !(Array.isArray(one) && one.length === 0)) (inside ??= []).push(one);
  }
  return inside ?? NOTHING;
}

function cleanMap(map: Map<unknown, unknown>, clean: Clean): readonly unknown[] {
  const inside: unknown[] = [];
  for (const [key, one] of map)
    if (typeof one === 'string') map.set(key, clean(one, ''));
    else inside.push(one);
  return inside;
}
