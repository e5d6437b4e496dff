/** Words of texts by number, and how much each weighs in each text: what is rare weighs more, what is said again a little more. */
export class Vocabulary {
  private readonly numbers = new Map<string, number>();
  private readonly texts: number[] = [];
  readonly words: string[] = [];
  private count = 0;

  /** Counts the words of a text once each, and gives their numbers. */
  take(words: readonly string[]): Int32Array {
    this.count++;
    const own = new Set<number>();
    const numbers = Int32Array.from(words, (word) => {
      let number = this.numbers.get(word);
      if (number === undefined) {
        this.numbers.set(word, (number = this.words.length));
        this.words.push(word);
        this.texts.push(0);
      }
      own.add(number);
      return number;
    });
    for (const number of own) this.texts[number]!++;
    return numbers;
  }

  /** Inverse document frequency (Robertson and Zaragoza, "The Probabilistic Relevance Framework", 2009). */
  rarity(word: number): number {
    const texts = this.texts[word]!;
    return Math.log(1 + (this.count - texts + 0.5) / (texts + 0.5));
  }
}

/** Words with weights, in the order of their numbers. */
export interface Vector {
  words: Int32Array;
  weights: Float32Array;
}

/** A vector from words with repeats; `weigh` says what a word weighs that is said so often. */
export function buildVector(words: Int32Array, weigh: (word: number, times: number) => number): Vector {
  const sorted = words.slice().sort();
  const distinct: number[] = [];
  const weights: number[] = [];
  for (let at = 0; at < sorted.length; ) {
    let end = at + 1;
    while (end < sorted.length && sorted[end] === sorted[at]) end++;
    distinct.push(sorted[at]!);
    weights.push(weigh(sorted[at]!, end - at));
    at = end;
  }
  return { words: Int32Array.from(distinct), weights: Float32Array.from(weights) };
}

/** As `vector`, of length one. */
export function normalise({ words, weights }: Vector): Vector {
  let sum = 0;
  for (const weight of weights) sum += weight * weight;
  const length = Math.sqrt(sum) || 1;
  return { words, weights: weights.map((weight) => weight / length) };
}

export function dot(a: Vector, b: Vector): number {
  let [i, j, sum] = [0, 0, 0];
  while (i < a.words.length && j < b.words.length) {
    const difference = a.words[i]! - b.words[j]!;
    if (difference === 0) sum += a.weights[i++]! * b.weights[j++]!;
    else if (difference < 0) i++;
    else j++;
  }
  return sum;
}

/** Which vectors have each word, for summing over all of them at once. */
export class Postings {
  private readonly start: Int32Array;
  private readonly text: Int32Array;
  private readonly weight: Float32Array;

  constructor(vectors: readonly Vector[], words: number) {
    this.start = new Int32Array(words + 1);
    for (const { words: own } of vectors) for (const word of own) this.start[word + 1]!++;
    for (let word = 0; word < words; word++) this.start[word + 1]! += this.start[word]!;
    this.text = new Int32Array(this.start[words]!);
    this.weight = new Float32Array(this.start[words]!);
    const next = this.start.slice();
    vectors.forEach((vector, text) => {
      for (let at = 0; at < vector.words.length; at++) {
        const place = next[vector.words[at]!]!++;
        this.text[place] = text;
        this.weight[place] = vector.weights[at]!;
      }
    });
  }

  /** Adds to each sum what its vector has in common with `query`. */
  addTo(sums: Float32Array, { words, weights }: Vector, factor = 1): void {
    for (let at = 0; at < words.length; at++) {
      const by = weights[at]! * factor;
      const end = this.start[words[at]! + 1]!;
      for (let place = this.start[words[at]!]!; place < end; place++) sums[this.text[place]!]! += by * this.weight[place]!;
    }
  }
}
