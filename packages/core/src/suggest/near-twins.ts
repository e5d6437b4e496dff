import { buildTokens } from './tokens.js';

/** Two texts that say nearly the same: their places, and the share of their words that they have in common (Jaccard). */
export interface Twins {
  a: number;
  b: number;
  share: number;
}

/** Texts with fewer different words are alike by chance. */
const LEAST_WORDS = 5;

/**
 * All pairs of texts of one group whose words overlap by at least `least`, exactly: a join by prefixes (Bayardo, Ma, Srikant: "Scaling up all pairs
 * similarity search", 2007), which looks only at pairs that share one of their rarest words. Texts of different groups are not compared.
 */
export function findTwins(texts: readonly { group: number; text: string }[], least = 0.8): Twins[] {
  const words = texts.map(({ text }) => [...new Set(buildTokens(text))]);
  const counts = new Map<string, number>();
  for (const own of words) for (const word of own) counts.set(word, (counts.get(word) ?? 0) + 1);
  // The rarest word first; equally rare ones by themselves, so that the order is the same in every text.
  const ranked = [...counts].sort(([a, one], [b, other]) => one - other || (a < b ? -1 : 1));
  const rankOf = new Map(ranked.map(([word], rank) => [word, rank]));
  const sets = words.map((own) => Uint32Array.from(own, (word) => rankOf.get(word)!).sort());
  const bySize = [...sets.keys()].filter((place) => sets[place]!.length >= LEAST_WORDS).sort((a, b) => sets[a]!.length - sets[b]!.length || a - b);
  const postings = new Map<number, number[]>();
  const seen = new Int32Array(texts.length).fill(-1);
  const found: Twins[] = [];
  for (const place of bySize) {
    const own = sets[place]!;
    const prefix = own.length - Math.ceil(least * own.length) + 1;
    for (let at = 0; at < prefix; at++) {
      const key = own[at]!;
      const list = postings.get(key);
      if (!list) {
        postings.set(key, [place]);
        continue;
      }
      for (const other of list) {
        // A shorter text cannot overlap enough with one that is much longer.
        if (seen[other] === place || texts[other]!.group !== texts[place]!.group || sets[other]!.length < least * own.length) continue;
        seen[other] = place;
        const both = countCommon(sets[other]!, own);
        const share = both / (own.length + sets[other]!.length - both);
        if (share >= least) found.push({ a: Math.min(place, other), b: Math.max(place, other), share });
      }
      list.push(place);
    }
  }
  return found.sort((one, other) => one.a - other.a || one.b - other.b);
}

function countCommon(a: Uint32Array, b: Uint32Array): number {
  let common = 0;
  for (let at = 0, other = 0; at < a.length && other < b.length; ) {
    if (a[at] === b[other]) {
      common++;
      at++;
      other++;
    } else if (a[at]! < b[other]!) at++;
    else other++;
  }
  return common;
}
