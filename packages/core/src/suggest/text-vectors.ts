/** A word that more texts say than this share, this many, and in any case more than this many, tells nothing. */
const COMMON_SHARE = 0.2;
const LEAST_COMMON = 50;
const MOST_TEXTS = 3000;

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

  /** Whether a word parts texts from each other: what very many say tells nothing, and takes longest to look up. */
  isTelling(word: number): boolean {
    return this.texts[word]! <= Math.max(LEAST_COMMON, Math.min(this.count * COMMON_SHARE, MOST_TEXTS));
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

  /** Adds to each sum of a column what its vector has in common with `query`; `sums` notes which were touched. */
  addTo(sums: Sums, column: number, { words, weights }: Vector, factor = 1): void {
    const { mark, list, columns, round } = sums;
    const { text: texts, weight, start } = this;
    const into = columns[column]!;
    let { count } = sums;
    for (let at = 0; at < words.length; at++) {
      const by = weights[at]! * factor;
      const end = start[words[at]! + 1]!;
      for (let place = start[words[at]!]!; place < end; place++) {
        const text = texts[place]!;
        if (mark[text] !== round) {
          mark[text] = round;
          list[count++] = text;
          for (let other = 0; other < columns.length; other++) columns[other]![text] = 0;
        }
        into[text]! += by * weight[place]!;
      }
    }
    sums.count = count;
  }
}

/** Sums for each of many, of which few are more than nothing: made once, and cleared only where something was added. */
export class Sums {
  readonly columns: readonly Float32Array[];
  /** The round in which each was touched last. */
  readonly mark: Uint32Array;
  readonly list: Int32Array;
  round = 0;
  count = 0;

  constructor(size: number, columns: number) {
    this.columns = Array.from({ length: columns }, () => new Float32Array(size));
    this.mark = new Uint32Array(size);
    this.list = new Int32Array(size);
  }

  begin(): void {
    this.round++;
    this.count = 0;
  }

  touch(index: number): void {
    if (this.mark[index] === this.round) return;
    this.mark[index] = this.round;
    this.list[this.count++] = index;
    for (const column of this.columns) column[index] = 0;
  }

  /** What was added to, in the order in which it was first. */
  touched(): Int32Array {
    return this.list.subarray(0, this.count);
  }

  of(column: number, index: number): number {
    return this.mark[index] === this.round ? this.columns[column]![index]! : 0;
  }
}

/** The `most` entries with the largest values, in any order; of equal ones those that come first. */
export function largest(indexes: Int32Array, values: ArrayLike<number>, most: number): number[] {
  if (indexes.length <= most) return [...indexes];
  // A heap with the smallest on top.
  const heap: number[] = [];
  const isLess = (a: number, b: number) => values[a]! < values[b]! || (values[a] === values[b] && a > b);
  const sink = (from: number) => {
    for (let at = from; ; ) {
      let least = at;
      for (const child of [2 * at + 1, 2 * at + 2]) if (child < heap.length && isLess(heap[child]!, heap[least]!)) least = child;
      if (least === at) return;
      [heap[at], heap[least]] = [heap[least]!, heap[at]!];
      at = least;
    }
  };
  for (const index of indexes) {
    if (heap.length < most) {
      heap.push(index);
      for (let at = heap.length - 1; at > 0; ) {
        const above = (at - 1) >> 1;
        if (!isLess(heap[at]!, heap[above]!)) break;
        [heap[at], heap[above]] = [heap[above]!, heap[at]!];
        at = above;
      }
    } else if (isLess(heap[0]!, index)) {
      heap[0] = index;
      sink(0);
    }
  }
  return heap;
}
