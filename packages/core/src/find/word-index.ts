import { findWords, fold, looksInside } from './fold.js';

/** A part of a document, and what a word in it is worth. */
export interface IndexedPart {
  text: string;
  /** Index into the weights of the index. */
  part: number;
}

export interface Hit {
  document: number;
  score: number;
}

/** Parts of a document are numbered below this. */
const PARTS = 8;
const WHOLE = 1;
const BEGINNING = 0.75;
const INSIDE = 0.3;

/**
 * Which documents hold which words: an inverted index with documents that come, change and go. A changed document is written anew and its
 * old words are passed over; when these make a quarter of all, everything old is swept out. Words are found by their beginnings, then inside.
 */
export class WordIndex {
  private readonly postings = new Map<string, number[]>();
  /** Words in order, for their beginnings; made anew when words were added. */
  private sorted: string[] | undefined;
  /** Document of each slot, or -1 when it was written anew. */
  private readonly documentOf: number[] = [];
  private readonly slotOf = new Map<number, number>();
  private stale = 0;

  /** `weights`: what a word is worth in each part. */
  constructor(private readonly weights: readonly number[]) {}

  get size(): number {
    return this.slotOf.size;
  }

  /** Writes a document, in place of what was written of it before. */
  write(document: number, parts: readonly IndexedPart[]): void {
    this.remove(document);
    const slot = this.documentOf.push(document) - 1;
    this.slotOf.set(document, slot);
    for (const { text, part } of parts)
      for (const word of new Set(findWords(fold(text)))) {
        const list = this.postings.get(word);
        if (list) list.push(slot * PARTS + part);
        else {
          this.postings.set(word, [slot * PARTS + part]);
          this.sorted = undefined;
        }
      }
    if (this.stale > 1000 && this.stale * 4 > this.documentOf.length) this.sweep();
  }

  remove(document: number): void {
    const slot = this.slotOf.get(document);
    if (slot === undefined) return;
    this.documentOf[slot] = -1;
    this.slotOf.delete(document);
    this.stale++;
  }

  /** Documents that hold every term (folded), best first by what the words are worth and how rare they are; ties by `order`, which leaves out what it gives less than 0 for. */
  find(terms: readonly string[], most: number, order: (document: number) => number, bonus: (document: number) => number = () => 0): Hit[] {
    if (terms.length === 0) return [];
    const scores = new Float64Array(this.documentOf.length);
    const reached = new Uint8Array(this.documentOf.length);
    const best = new Float32Array(this.documentOf.length);
    terms.forEach((term, index) => {
      const touched: number[] = [];
      for (const [word, quality] of this.wordsLike(term))
        for (const posting of this.postings.get(word)!) {
          const slot = Math.floor(posting / PARTS);
          if (reached[slot] !== index || this.documentOf[slot]! < 0) continue;
          const worth = quality * this.weights[posting % PARTS]!;
          if (best[slot] === 0) touched.push(slot);
          if (worth > best[slot]!) best[slot] = worth;
        }
      const rarity = Math.log(1 + this.slotOf.size / Math.max(1, touched.length));
      for (const slot of touched) {
        scores[slot]! += best[slot]! * rarity;
        best[slot] = 0;
        reached[slot] = index + 1;
      }
    });
    const hits: Hit[] = [];
    for (let slot = 0; slot < scores.length; slot++)
      if (reached[slot] === terms.length) {
        const document = this.documentOf[slot]!;
        if (order(document) < 0) continue;
        hits.push({ document, score: scores[slot]! + bonus(document) });
      }
    return hits.sort((a, b) => b.score - a.score || order(a.document) - order(b.document)).slice(0, most);
  }

  /** Words that a term is, begins, or stands in, with how well it does. */
  private wordsLike(term: string): [word: string, quality: number][] {
    this.sorted ??= [...this.postings.keys()].sort();
    const found: [string, number][] = [];
    if (looksInside(term)) {
      for (const word of this.sorted) {
        const at = word.indexOf(term);
        if (at === 0) found.push([word, word.length === term.length ? WHOLE : BEGINNING]);
        else if (at > 0) found.push([word, INSIDE]);
      }
      return found;
    }
    for (let at = lowerBound(this.sorted, term); at < this.sorted.length && this.sorted[at]!.startsWith(term); at++)
      found.push([this.sorted[at]!, this.sorted[at]!.length === term.length ? WHOLE : BEGINNING]);
    return found;
  }

  private sweep(): void {
    const slots = new Map<number, number>();
    const kept: number[] = [];
    this.documentOf.forEach((document, slot) => {
      if (document < 0) return;
      slots.set(slot, kept.push(document) - 1);
      this.slotOf.set(document, slots.get(slot)!);
    });
    for (const [word, list] of this.postings) {
      const next = list.flatMap((posting) => {
        const slot = slots.get(Math.floor(posting / PARTS));
        return slot === undefined ? [] : [slot * PARTS + (posting % PARTS)];
      });
      if (next.length > 0) this.postings.set(word, next);
      else this.postings.delete(word);
    }
    this.documentOf.length = 0;
    for (const document of kept) this.documentOf.push(document);
    this.sorted = undefined;
    this.stale = 0;
  }
}

function lowerBound(sorted: readonly string[], wanted: string): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sorted[middle]! < wanted) low = middle + 1;
    else high = middle;
  }
  return low;
}
