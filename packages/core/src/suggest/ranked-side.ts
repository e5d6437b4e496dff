import { buildVector, normalise, type Vector, type Vocabulary } from './text-vectors.js';

export interface RankedItem {
  title: string;
  text: string;
  /** Index of what it stands in, within its list; −1 for nothing. */
  parent: number;
}

/** Of BM25: how soon saying a word again counts no more, and how much long texts are held back. */
const K1 = 1.2;
const B = 0.75;

/** The items of one list, as they are compared. */
export interface Side {
  items: readonly RankedItem[];
  /** Words of the text as they count where it is looked for by others. */
  body: Vector[];
  /** What the text has to say, each word once. */
  query: Vector[];
  /** Shares of the title. */
  title: Vector[];
  /** Text and the titles that it stands under, of length one. */
  context: Vector[];
  children: Map<number, number[]>;
}

export function buildSide(items: readonly RankedItem[], words: readonly { title: Int32Array; text: Int32Array }[], vocabulary: Vocabulary): Side {
  const rarity = (word: number) => vocabulary.rarity(word);
  words = words.map(({ title, text }) => ({
    title: title.filter((word) => vocabulary.isTelling(word)),
    text: text.filter((word) => vocabulary.isTelling(word)),
  }));
  // A title says twice what it says.
  const whole = words.map(({ title, text }) => Int32Array.from([...title, ...title, ...text]));
  const average = whole.reduce((sum, { length }) => sum + length, 0) / Math.max(1, whole.length) || 1;
  const children = new Map<number, number[]>();
  items.forEach(({ parent }, index) => {
    if (parent < 0) return;
    const known = children.get(parent);
    if (known) known.push(index);
    else children.set(parent, [index]);
  });
  const inContext = whole.map((own, index) => {
    const above: number[] = [...own];
    for (let at = items[index]!.parent, depth = 0; at >= 0 && depth < 3; at = items[at]!.parent, depth++) above.push(...words[at]!.title);
    return Int32Array.from(above);
  });
  return {
    items,
    children,
    body: whole.map((own) => buildVector(own, (_, times) => (times * (K1 + 1)) / (times + K1 * (1 - B + (B * own.length) / average)))),
    query: whole.map((own) => buildVector(own, rarity)),
    title: words.map(({ title }) => {
      const vector = buildVector(title, rarity);
      const sum = vector.weights.reduce((all, one) => all + one, 0) || 1;
      // A title of one usual word is said everywhere.
      const telling = Math.min(1, Math.log(1 + sum) / 2.5);
      return { words: vector.words, weights: vector.weights.map((one) => (one / sum) * telling) };
    }),
    context: inContext.map((own) => normalise(buildVector(own, (word, times) => (1 + Math.log(times)) * rarity(word)))),
  };
}

/** What a text would weigh that says all that is asked. */
export function mostOf({ weights }: Vector): number {
  let sum = 0;
  for (const weight of weights) sum += weight;
  return sum * (K1 + 1) || 1;
}

/** How much of a title another text says, from 0 to 1. */
export function shareSaid(title: Vector, { words }: Vector): number {
  let [i, j, sum] = [0, 0, 0];
  while (i < title.words.length && j < words.length) {
    const difference = title.words[i]! - words[j]!;
    if (difference === 0) {
      sum += title.weights[i++]!;
      j++;
    } else if (difference < 0) i++;
    else j++;
  }
  return sum;
}

let ones = new Float32Array(0);
/** The same words, each of which counts for one. */
export function asOnes({ words }: Vector): Vector {
  if (ones.length < words.length) ones = new Float32Array(2 * words.length).fill(1);
  return { words, weights: ones };
}
