import { readTellingWords } from './telling-words.js';
import type { RankedItem } from './candidate.js';

/** Words as they were read: those of an item's title, then those of its text. */
export interface ReadWords {
  start: Int32Array;
  textStart: Int32Array;
  word: Int32Array;
}

/** A word that more texts say than this share, this many, and in any case more than this many, tells nothing. */
const COMMON_SHARE = 0.2;
const LEAST_COMMON = 50;
const MOST_TEXTS = 3000;

/** Words of texts by number, and how rare each is. */
export class Vocabulary {
  private readonly numbers = new Map<string, number>();
  private readonly texts: number[] = [];
  /** The item that said each last, so that each is counted once. */
  private readonly last: number[] = [];
  readonly words: string[] = [];
  private count = 0;

  /** The words of all items; titles and texts count as one text each. */
  read(items: readonly RankedItem[]): ReadWords {
    const [start, textStart] = [new Int32Array(items.length + 1), new Int32Array(items.length)];
    let [word, at] = [new Int32Array(1024), 0];
    const take = (form: string) => {
      let number = this.numbers.get(form);
      if (number === undefined) {
        this.numbers.set(form, (number = this.words.length));
        this.words.push(form);
        this.texts.push(0);
        this.last.push(-1);
      }
      if (this.last[number] !== this.count) {
        this.last[number] = this.count;
        this.texts[number]!++;
      }
      if (at === word.length) word = grown(word);
      word[at++] = number;
    };
    items.forEach(({ title, text }, index) => {
      readTellingWords(title, take);
      this.count++;
      textStart[index] = at;
      readTellingWords(text, take);
      this.count++;
      start[index + 1] = at;
    });
    return { start, textStart, word: word.slice(0, at) };
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

/** The same with room for as much again. */
export function grown<Column extends Int32Array | Float32Array>(column: Column): Column {
  const larger = new (column.constructor as new (size: number) => Column)(2 * column.length);
  larger.set(column);
  return larger;
}
