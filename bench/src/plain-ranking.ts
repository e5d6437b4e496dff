import { buildTokens } from '@coomb/core';

export interface Ranked {
  index: number;
  score: number;
  /** Words both texts share, the most telling first: the reason for the suggestion. */
  shared: string[];
}

const K1 = 1.2;
const B = 0.75;

/**
 * Ranks texts by likeness to a query with BM25 (Robertson and Zaragoza, "The Probabilistic Relevance Framework", 2009)
 * on an inverted index in typed arrays, built once.
 */
export class TextRanking {
  private readonly postings = new Map<string, { texts: number[]; counts: number[] }>();
  private readonly lengths: Float64Array;
  private readonly average: number;

  constructor(texts: readonly string[]) {
    this.lengths = new Float64Array(texts.length);
    let total = 0;
    texts.forEach((text, index) => {
      const tokens = buildTokens(text);
      this.lengths[index] = tokens.length;
      total += tokens.length;
      for (const token of tokens) this.count(token, index);
    });
    this.average = total / Math.max(1, texts.length) || 1;
  }

  /** The best `most` texts for a query, best first; ties in index order. */
  rank(query: string, most = 10): Ranked[] {
    const scores = new Map<number, { score: number; words: [string, number][] }>();
    for (const token of new Set(buildTokens(query))) {
      const posting = this.postings.get(token);
      if (!posting) continue;
      const weight = Math.log(1 + (this.lengths.length - posting.texts.length + 0.5) / (posting.texts.length + 0.5));
      posting.texts.forEach((index, at) => {
        const count = posting.counts[at]!;
        const gain = (weight * count * (K1 + 1)) / (count + K1 * (1 - B + (B * this.lengths[index]!) / this.average));
        const entry = scores.get(index) ?? { score: 0, words: [] };
        entry.score += gain;
        entry.words.push([token, gain]);
        scores.set(index, entry);
      });
    }
    return [...scores]
      .map(([index, { score, words }]) => ({ index, score, shared: words.sort((a, b) => b[1] - a[1]).map(([word]) => word) }))
      .sort((a, b) => b.score - a.score || a.index - b.index)
      .slice(0, most);
  }

  private count(token: string, index: number): void {
    let posting = this.postings.get(token);
    if (!posting) this.postings.set(token, (posting = { texts: [], counts: [] }));
    if (posting.texts.at(-1) === index) posting.counts[posting.counts.length - 1]!++;
    else {
      posting.texts.push(index);
      posting.counts.push(1);
    }
  }
}
