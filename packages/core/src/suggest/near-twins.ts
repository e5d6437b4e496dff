import { buildTokens } from './tokens.js';

/** Two texts that say nearly the same: their places, and the share of their words that they have in common (Jaccard). */
export interface Twins {
  a: number;
  b: number;
  share: number;
}

/** Texts with fewer different words are alike by chance. */
const LEAST_WORDS = 5;
/** Keeps a bound from being missed by what is lost in dividing. */
const ROUNDING = 1e-9;

/**
 * All pairs of texts of one group whose words overlap by at least `least`, exactly: a join by prefixes (Bayardo, Ma, Srikant: "Scaling up all pairs
 * similarity search", 2007) that also looks at where in both texts the shared word stands (Xiao, Wang, Lin, Yu: "Efficient similarity joins for near
 * duplicate detection", 2008). Texts of different groups are not compared.
 */
export function findTwins(texts: readonly { group: number; text: string }[], least = 0.8): Twins[] {
  const { start, word, words } = readRanked(texts.map(({ text }) => text));
  const groups = new Map<number, number[]>();
  texts.forEach(({ group }, place) => {
    if (start[place + 1]! - start[place]! < LEAST_WORDS) return;
    const known = groups.get(group);
    if (known) known.push(place);
    else groups.set(group, [place]);
  });
  const found: Twins[] = [];
  const postings: Postings = { first: new Int32Array(words).fill(-1), place: [], at: [], next: [] };
  const seen = new Int32Array(texts.length).fill(-1);
  for (const places of groups.values()) {
    // The shorter first: what comes later is as long or longer.
    const size = (place: number) => start[place + 1]! - start[place]!;
    places.sort((a, b) => size(a) - size(b) || a - b);
    joinGroup(places, { start, word, least, postings, seen }, found);
    for (const place of places) for (let at = start[place]!; at < start[place + 1]!; at++) postings.first[word[at]!] = -1;
    postings.place.length = postings.at.length = postings.next.length = 0;
  }
  return found.sort((one, other) => one.a - other.a || one.b - other.b);
}

/** Chains of where each word stands in the beginnings of the texts so far, the longest text first. */
interface Postings {
  first: Int32Array;
  place: number[];
  at: number[];
  next: number[];
}

interface Join {
  start: Int32Array;
  /** The words of each text by their rank, the rarest first. */
  word: Int32Array;
  least: number;
  postings: Postings;
  /** The text that each was last compared with. */
  seen: Int32Array;
}

function joinGroup(places: readonly number[], { start, word, least, postings, seen }: Join, found: Twins[]): void {
  const { first, place: placeOf, at: atOf, next } = postings;
  for (const own of places) {
    const [from, to] = [start[own]!, start[own + 1]!];
    const size = to - from;
    const shortest = least * size - ROUNDING;
    // Two that overlap enough share a word among so many of the rarest; of a text that is no longer, among fewer.
    const probed = size - Math.ceil(shortest) + 1;
    const kept = size - Math.ceil(((2 * least) / (1 + least)) * size - ROUNDING) + 1;
    for (let at = 0; at < probed; at++) {
      const key = word[from + at]!;
      for (let entry = first[key]!; entry >= 0; entry = next[entry]!) {
        const other = placeOf[entry]!;
        const otherSize = start[other + 1]! - start[other]!;
        // All that follow are shorter still.
        if (otherSize < shortest) break;
        if (seen[other] === own) continue;
        seen[other] = own;
        const needed = (least / (1 + least)) * (size + otherSize) - ROUNDING;
        // This is the rarest word that both say: only what follows it in both can be shared.
        if (1 + Math.min(size - at - 1, otherSize - atOf[entry]! - 1) < needed) continue;
        const both = countCommon(word, start[other]! + atOf[entry]!, start[other + 1]!, from + at, to, needed);
        const share = both / (size + otherSize - both);
        if (share >= least) found.push({ a: Math.min(own, other), b: Math.max(own, other), share });
      }
    }
    for (let at = 0; at < kept; at++) {
      const key = word[from + at]!;
      next.push(first[key]!);
      first[key] = placeOf.length;
      placeOf.push(own);
      atOf.push(at);
    }
  }
}

/** How many words two texts share from there on; fewer where they cannot be as many as are needed. */
function countCommon(word: Int32Array, a: number, aEnd: number, b: number, bEnd: number, needed: number): number {
  let common = 0;
  while (a < aEnd && b < bEnd) {
    const difference = word[a]! - word[b]!;
    if (difference === 0) {
      common++;
      a++;
      b++;
    } else {
      if (difference < 0) a++;
      else b++;
      if (common + Math.min(aEnd - a, bEnd - b) < needed) return common;
    }
  }
  return common;
}

/** The different words of each text by their rank, the rarest of all first; equally rare ones as they came. */
function readRanked(texts: readonly string[]): { start: Int32Array; word: Int32Array; words: number } {
  const numbers = new Map<string, number>();
  const [counts, last]: [number[], number[]] = [[], []];
  const start = new Int32Array(texts.length + 1);
  const said: number[] = [];
  texts.forEach((text, place) => {
    for (const token of buildTokens(text)) {
      let number = numbers.get(token);
      if (number === undefined) {
        numbers.set(token, (number = counts.length));
        counts.push(0);
        last.push(-1);
      }
      if (last[number] === place) continue;
      last[number] = place;
      counts[number]!++;
      said.push(number);
    }
    start[place + 1] = said.length;
  });
  const order = Int32Array.from(counts.keys()).sort((a, b) => counts[a]! - counts[b]! || a - b);
  const rank = new Int32Array(counts.length);
  order.forEach((number, at) => {
    rank[number] = at;
  });
  const word = Int32Array.from(said, (number) => rank[number]!);
  for (let place = 0; place < texts.length; place++) word.subarray(start[place]!, start[place + 1]!).sort();
  return { start, word, words: counts.length };
}
