import type { RankedItem } from './candidate.js';
import { grown, type ReadWords, type Vocabulary } from './vocabulary.js';

/** Of BM25: how soon saying a word again counts no more, and how much long texts are held back. */
const K1 = 1.2;
const B = 0.75;
/** How many titles above an item say where it stands. */
const ABOVE = 3;

/** Which words which items say, and how much each counts there: by item, or turned by word. Columns, so that many are summed fast. */
export interface WordColumns {
  /** Where the entries of each begin; one more than there are. */
  start: Int32Array;
  /** The words of an item, the rarest first; or the items of a word. */
  of: Int32Array;
  /** What it counts where it is looked for by others; 0 where only the titles above say it. */
  body: Float32Array;
  /** Its share of the title, from 0 to 1. */
  title: Float32Array;
  /** What it counts in the text together with the titles above, as a vector of length one. */
  context: Float32Array;
}

/** The words of all items by item, those that tell something. */
export function columnsOf(items: readonly RankedItem[], { start, textStart, word }: ReadWords, vocabulary: Vocabulary): WordColumns {
  const size = vocabulary.words.length;
  const rarity = Float64Array.from({ length: size }, (_, at) => vocabulary.rarity(at));
  const isTelling = Uint8Array.from({ length: size }, (_, at) => (vocabulary.isTelling(at) ? 1 : 0));
  // A title says twice what it says.
  const lengths = new Int32Array(items.length);
  let all = 0;
  for (let item = 0; item < items.length; item++) {
    for (let at = start[item]!; at < start[item + 1]!; at++) if (isTelling[word[at]!]) lengths[item]! += at < textStart[item]! ? 2 : 1;
    all += lengths[item]!;
  }
  const average = all / Math.max(1, items.length) || 1;
  const columns = new Growing();
  const starts = new Int32Array(items.length + 1);
  const [times, above, inTitle] = [new Int32Array(size), new Int32Array(size), new Uint8Array(size)];
  const distinct: number[] = [];
  const add = (from: number, to: number, into: Int32Array, by: number) => {
    for (let at = from; at < to; at++) {
      const one = word[at]!;
      if (!isTelling[one]) continue;
      if (times[one] === 0 && above[one] === 0) distinct.push(one);
      into[one]! += by;
    }
  };
  for (let item = 0; item < items.length; item++) {
    distinct.length = 0;
    add(start[item]!, textStart[item]!, times, 2);
    let titleSum = 0;
    for (const one of distinct) {
      inTitle[one] = 1;
      titleSum += rarity[one]!;
    }
    // A title of one usual word is said everywhere.
    const titleTelling = Math.min(1, Math.log(1 + titleSum) / 2.5) / (titleSum || 1);
    add(textStart[item]!, start[item + 1]!, times, 1);
    for (let at = items[item]!.parent, depth = 0; at >= 0 && depth < ABOVE; at = items[at]!.parent, depth++) add(start[at]!, textStart[at]!, above, 1);
    // The rarest first.
    distinct.sort((a, b) => rarity[b]! - rarity[a]! || a - b);
    const held = K1 * (1 - B + (B * lengths[item]!) / average);
    const first = columns.count;
    let square = 0;
    for (const one of distinct) {
      const said = times[one]!;
      const context = (1 + Math.log(said + above[one]!)) * rarity[one]!;
      square += context * context;
      columns.push(one, said > 0 ? (said * (K1 + 1)) / (said + held) : 0, inTitle[one] ? rarity[one]! * titleTelling : 0, context);
      times[one] = above[one] = inTitle[one] = 0;
    }
    const length = Math.sqrt(square) || 1;
    for (let at = first; at < columns.count; at++) columns.context[at]! /= length;
    starts[item + 1] = columns.count;
  }
  return columns.end(starts);
}

/** Columns that grow as entries come. */
class Growing {
  count = 0;
  private of = new Int32Array(1024);
  private body = new Float32Array(1024);
  private title = new Float32Array(1024);
  context = new Float32Array(1024);

  push(of: number, body: number, title: number, context: number): void {
    if (this.count === this.of.length) {
      this.of = grown(this.of);
      this.body = grown(this.body);
      this.title = grown(this.title);
      this.context = grown(this.context);
    }
    this.of[this.count] = of;
    this.body[this.count] = body;
    this.title[this.count] = title;
    this.context[this.count++] = context;
  }

  end(start: Int32Array): WordColumns {
    const { count } = this;
    return { start, of: this.of.slice(0, count), body: this.body.slice(0, count), title: this.title.slice(0, count), context: this.context.slice(0, count) };
  }
}

/** The same by word where it was by item. */
export function turned({ start, of, body, title, context }: WordColumns, words: number): WordColumns {
  const starts = new Int32Array(words + 1);
  for (const word of of) starts[word + 1]!++;
  for (let word = 0; word < words; word++) starts[word + 1]! += starts[word]!;
  const next = starts.slice();
  const into = {
    start: starts,
    of: new Int32Array(of.length),
    body: new Float32Array(of.length),
    title: new Float32Array(of.length),
    context: new Float32Array(of.length),
  };
  for (let item = 0; item + 1 < start.length; item++)
    for (let at = start[item]!; at < start[item + 1]!; at++) {
      const place = next[of[at]!]!++;
      into.of[place] = item;
      into.body[place] = body[at]!;
      into.title[place] = title[at]!;
      into.context[place] = context[at]!;
    }
  return into;
}

/** For each item, one divided by what a text would weigh that says all that the item asks. */
export function shareOfMost({ start, of, body }: WordColumns, vocabulary: Vocabulary): Float32Array {
  return Float32Array.from({ length: start.length - 1 }, (_, item) => {
    let sum = 0;
    for (let at = start[item]!; at < start[item + 1]!; at++) if (body[at]! > 0) sum += vocabulary.rarity(of[at]!);
    return 1 / (sum * (K1 + 1) || 1);
  });
}
