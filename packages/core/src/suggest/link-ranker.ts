import type { Calibration } from './calibration.js';
import type { Candidate, KnownLinks, RankedItem, Reason } from './candidate.js';
import { calibrate, fitWeights, hideSome, type Looker } from './learn-weights.js';
import { childrenOf, LinkIndex } from './link-index.js';
import { score } from './logistic.js';
import { AT, type Feature, FEATURES, PRIOR } from './pair-features.js';
import { largest, Sums } from './sums.js';
import { Vocabulary } from './vocabulary.js';
import { columnsOf, shareOfMost, turned, type WordColumns } from './word-columns.js';

/** Candidates that are looked at closely, for each that is asked for and at least. */
const CLOSE_EACH = 3;
const CLOSE_LEAST = 30;
/** Those that stand at the same place are always among them, so far to both sides; as are those that are linked most often. */
const OPPOSITE = 10;
/** Words are summed from the rarest on until so many sayings were met: this share of all items, in short lists every one. */
const SUMMED_SHARE = 0.1;
const SUMMED_SHORT = 2_500_000;
const summedMost = (items: number) => Math.max(SUMMED_SHARE * items, SUMMED_SHORT / Math.max(1, items));
/** What more than so many are linked with tells nothing. */
const HUB = 200;
/** Likeness of less is of usual words: it tells nothing. */
const ALIKE_LEAST = 0.1;
/** What more than so many are linked with is compared with all that are like at once. */
const MANY = 24;
/** A link is compared with so many others; with more where it does not stand above most of them. */
const FEW_JUDGED = 40;
const MANY_JUDGED = 400;
const CLEARLY_GOOD = 0.8;

interface Found {
  index: number;
  score: number;
}

/** The items of one list, as they are compared. */
interface Side {
  items: readonly RankedItem[];
  words: WordColumns;
  children: Map<number, number[]>;
}

/**
 * Ranks what an item may be linked with: by words (BM25), by titles that are said, by where both stand, and by the links that are there; how much each
 * counts is learnt from those links (logistic regression towards what usually holds). The same input gives the same ranking.
 */
export class LinkRanker {
  private readonly left: Side;
  private readonly right: Side;
  private readonly isOne: boolean;
  private readonly words: readonly string[];
  private readonly rarity: Float32Array;
  /** By word: which items of the right say it, and which of the left. */
  private readonly sayings: WordColumns;
  private readonly leftSayings: WordColumns;
  /** What makes the words of an item of the left a share of all that it asks. */
  private readonly share: Float32Array;
  private weights: readonly number[] = PRIOR;
  /** Only what speaks for a link, whoever else is linked already. */
  private speaking: readonly number[] = PRIOR;
  private calibration: Calibration | null = null;
  private readonly links: LinkIndex;
  /** What speaks for each of the right, without what takes longest to tell; and what of it is the same whatever is asked about. */
  private readonly rough: Sums;
  private readonly roughAlways: Float32Array;
  /** What its place speaks for it, by how far it stands from the place of the item asked about. */
  private readonly roughNear: Float32Array;
  /** How like each of the left is. */
  private readonly likeness: Sums;
  /** For what is linked with items like the one asked about, how like the likest is, and which it is. */
  private readonly alike: Sums;
  private readonly likest: Int32Array;
  private alikeOf = -1;
  /** What links around lead to, and how often. */
  private readonly beside: Sums;
  /** The item that is asked about, by word: what it asks, its title, and its context. */
  private readonly asked: Float32Array;
  private readonly askedTitle: Float32Array;
  private readonly askedContext: Float32Array;
  private taken = -1;
  private readonly row = new Float32Array(FEATURES.length);
  private aroundTaken: ReadonlySet<number> = new Set();

  /** Of two lists, or of one that is linked within itself when both are the same. */
  constructor(left: readonly RankedItem[], right: readonly RankedItem[]) {
    this.isOne = left === right;
    const vocabulary = new Vocabulary();
    const own = vocabulary.read(left);
    const others = this.isOne ? undefined : vocabulary.read(right);
    const size = vocabulary.words.length;
    this.left = { items: left, words: columnsOf(left, own, vocabulary), children: childrenOf(left) };
    this.right = others ? { items: right, words: columnsOf(right, others, vocabulary), children: childrenOf(right) } : this.left;
    this.words = vocabulary.words;
    this.links = new LinkIndex(left, right);
    this.rarity = Float32Array.from({ length: size }, (_, word) => vocabulary.rarity(word));
    this.sayings = turned(this.right.words, size);
    this.leftSayings = this.isOne ? this.sayings : turned(this.left.words, size);
    this.share = shareOfMost(this.left.words, vocabulary);
    this.rough = new Sums(right.length);
    this.roughAlways = new Float32Array(right.length);
    this.roughNear = new Float32Array(right.length + 1);
    this.likeness = new Sums(left.length);
    this.alike = new Sums(right.length);
    this.beside = new Sums(right.length);
    this.likest = new Int32Array(right.length);
    this.asked = new Float32Array(size);
    this.askedTitle = new Float32Array(size);
    this.askedContext = new Float32Array(size);
    this.know({ links: [] });
  }

  /** Takes the links that are there into account without learning from them. */
  know(known: KnownLinks): void {
    this.links.know(known);
    this.alikeOf = -1;
    if (this.taken >= 0) this.aroundTaken = this.links.aroundLeft(this.taken);
    this.weigh(this.weights);
  }

  /** Learns from the links that are there how much each reason counts here, and how far its own judgement can be relied on. */
  learn(known: KnownLinks): void {
    const parted = hideSome(known);
    this.calibration = null;
    if (parted) {
      const { rest, hidden } = parted;
      this.know({ ...known, links: rest });
      this.weigh(fitWeights(this.looker(), { ...known, links: rest }));
      this.calibration = calibrate(hidden, (from, most) => this.findBest(from, most, (to) => this.links.linkedWith(from).has(to)));
    }
    this.know(known);
    this.weigh(fitWeights(this.looker(), known));
  }

  private looker(): Looker {
    return {
      items: this.right.items.length,
      isLinked: (from, to) => this.links.linkedWith(from).has(to),
      isSame: (from, to) => this.isOne && from === to,
      look: (from, to) => {
        this.take(from);
        return this.look(from, to);
      },
    };
  }

  private weigh(weights: readonly number[]): void {
    this.weights = weights;
    this.speaking = weights.map((weight, at) => (at === AT.often ? 0 : Math.max(0, weight)));
    const { often } = this.links;
    const [byOften, byNear] = [weights[AT.often]!, weights[AT.near]!];
    for (let to = 0; to < often.length; to++) this.roughAlways[to] = byOften * often[to]!;
    for (let far = 0; far < this.roughNear.length; far++) this.roughNear[far] = byNear / (1 + (this.isOne ? far : (40 * far) / often.length));
  }

  /** The best `most` that an item of the left may be linked with and is not, best first. */
  rank(from: number, most = 10, isLeftOut?: (to: number) => boolean): Candidate[] {
    const there = this.links.linkedWith(from);
    const best = this.findBest(from, most, (to) => there.has(to) || isLeftOut?.(to) === true);
    return best.map(({ index, score: value }) => ({
      index,
      score: value,
      likelihood: this.calibration?.of(value) ?? null,
      reasons: this.explain(from, index),
    }));
  }

  /**
   * How each link stands, as if it were not there: the share, from 0 to 1, of what else its item of the left could be linked with that less speaks
   * for. Of long lists an even choice is compared.
   */
  judge(links: KnownLinks['links']): Float32Array {
    return Float32Array.from(links, ([from, to]) => {
      const standing = this.stand(from, to, FEW_JUDGED);
      return standing > CLEARLY_GOOD ? standing : this.stand(from, to, MANY_JUDGED);
    });
  }

  private stand(from: number, to: number, most: number): number {
    this.take(from);
    const { speaking } = this;
    const own = score(speaking, this.look(from, to));
    const { length } = this.right.items;
    const known = this.links.linkedWith(from);
    const step = Math.max(1, length / most);
    let [less, all] = [0, 0];
    for (let at = 0; at < length; at += step) {
      const other = Math.floor(at);
      if (other === to || known.has(other) || (this.isOne && other === from)) continue;
      const value = score(speaking, this.look(from, other));
      all++;
      less += value < own ? 1 : value === own ? 0.5 : 0;
    }
    return all === 0 ? 1 : less / all;
  }

  /** What stands to be linked, by all that speaks for it but that they are linked: what roughly looks best is looked at closely. */
  private findBest(from: number, most: number, isLeftOut: (to: number) => boolean): Found[] {
    const { weights } = this;
    this.take(from);
    this.findAlike(from);
    this.sumRough(from);
    const best: Found[] = [];
    const { list, count, value } = this.rough;
    for (const to of largest(list, count, value, Math.max(CLOSE_LEAST, CLOSE_EACH * most))) {
      if ((this.isOne && to === from) || isLeftOut(to)) continue;
      best.push({ index: to, score: score(weights, this.look(from, to)) });
    }
    return best.sort((x, y) => y.score - x.score || x.index - y.index).slice(0, most);
  }

  /** Lays the words of an item of the left out by word, for others to be compared with. */
  private take(from: number): void {
    if (this.taken === from) return;
    const { asked, askedTitle, askedContext, share, rarity } = this;
    const { start, of, body, title, context } = this.left.words;
    if (this.taken >= 0) for (let at = start[this.taken]!; at < start[this.taken + 1]!; at++) asked[of[at]!] = askedTitle[of[at]!] = askedContext[of[at]!] = 0;
    for (let at = start[from]!; at < start[from + 1]!; at++) {
      const word = of[at]!;
      asked[word] = body[at]! > 0 ? rarity[word]! * share[from]! : 0;
      askedTitle[word] = title[at]!;
      askedContext[word] = context[at]!;
    }
    this.taken = from;
    this.aroundTaken = this.links.aroundLeft(from);
  }

  /** Sums up for all of the right at once what speaks for them: words, what is like the item, and what the links around lead to. */
  private sumRough(from: number): void {
    const { rough, roughAlways, weights, asked, askedContext, sayings, alike, beside } = this;
    const { start, of, body, title, context } = sayings;
    const { mark, list, value } = rough;
    const own = this.left.words;
    const near = this.roughNear;
    const opposite = this.isOne ? from : Math.round((from * value.length) / this.left.items.length);
    rough.begin();
    const { round } = rough;
    let [count, left] = [0, summedMost(value.length)];
    for (let at = own.start[from]!; at < own.start[from + 1]! && left > 0; at++) {
      const word = own.of[at]!;
      const byBody = weights[AT.words]! * asked[word]!;
      const byTitle = own.body[at]! > 0 ? weights[AT.titleSaid]! : 0;
      const byContext = weights[AT.context]! * askedContext[word]!;
      const [first, end] = [start[word]!, start[word + 1]!];
      left -= end - first;
      for (let place = first; place < end; place++) {
        const to = of[place]!;
        if (mark[to] !== round) {
          mark[to] = round;
          list[count++] = to;
          value[to] = roughAlways[to]! + near[Math.abs(to - opposite)]!;
        }
        value[to]! += byBody * body[place]! + byTitle * title[place]! + byContext * context[place]!;
      }
    }
    rough.count = count;
    const raise = (to: number, by: number) => rough.add(to, mark[to] === round ? by : by + roughAlways[to]! + near[Math.abs(to - opposite)]!);
    for (const to of this.links.usual) raise(to, 0);
    for (let to = Math.max(0, opposite - OPPOSITE); to < Math.min(value.length, opposite + OPPOSITE); to++) raise(to, 0);
    const add = (sums: Sums, by: number) => {
      for (let at = 0; at < sums.count; at++) {
        const to = sums.list[at]!;
        raise(to, by * Math.min(2, sums.value[to]!));
      }
    };
    add(alike, weights[AT.alike]!);
    const [item, known] = [this.left.items[from]!, this.links.linkedWith(from)];
    beside.begin();
    if (item.parent >= 0)
      for (const like of this.left.children.get(item.parent)!) if (like !== from) for (const to of this.links.linkedWith(like)) beside.add(to, 1);
    add(beside, weights[AT.beside]!);
    beside.begin();
    for (const one of known) {
      const { parent } = this.right.items[one]!;
      if (parent >= 0) for (const to of this.right.children.get(parent)!) if (to !== one) beside.add(to, 1);
    }
    add(beside, weights[AT.besideKnown]!);
    if (this.isOne) for (const other of this.links.in[from]!) raise(other, weights[AT.reverse]!);
    if (this.aroundTaken.size === 0) return;
    beside.begin();
    for (const other of this.aroundTaken) {
      const there = this.links.besideOther(other);
      if (there.length <= HUB) for (const to of there) beside.add(to, 1 / Math.log(2 + this.aroundTaken.size + (this.links.around?.right[to]?.length ?? 0)));
    }
    add(beside, weights[AT.common]!);
  }

  /** Notes what is linked with items like this one, how like the likest of them is and which it is. */
  private findAlike(from: number): void {
    if (this.alikeOf === from) return;
    this.alikeOf = from;
    const { likeness, alike, likest } = this;
    const { start, of, context } = this.leftSayings;
    const own = this.left.words;
    alike.begin();
    if (this.links.isEmpty) return;
    const { mark, list, value } = likeness;
    likeness.begin();
    const { round } = likeness;
    let [count, left] = [0, summedMost(value.length)];
    for (let at = own.start[from]!; at < own.start[from + 1]! && left > 0; at++) {
      const word = own.of[at]!;
      const by = own.context[at]!;
      const [first, end] = [start[word]!, start[word + 1]!];
      left -= end - first;
      for (let place = first; place < end; place++) {
        const like = of[place]!;
        if (mark[like] !== round) {
          mark[like] = round;
          list[count++] = like;
          value[like] = 0;
        }
        value[like]! += by * context[place]!;
      }
    }
    for (let at = 0; at < count; at++) {
      const like = list[at]!;
      if (value[like]! < ALIKE_LEAST || like === from) continue;
      for (const to of this.links.linkedWith(like)) if (alike.raise(to, value[like]!)) likest[to] = like;
    }
  }

  /** How like the likest other item is that is linked with `to`. */
  private alikeWith(from: number, to: number): number {
    const into = this.links.in[to]!;
    if (this.alikeOf === from || into.length > MANY) {
      this.findAlike(from);
      return this.alike.of(to);
    }
    const { start, of, context } = this.left.words;
    const { askedContext } = this;
    let best = 0;
    for (const like of into) {
      if (like === from) continue;
      let sum = 0;
      for (let at = start[like]!; at < start[like + 1]!; at++) sum += askedContext[of[at]!]! * context[at]!;
      if (sum > best) best = sum;
    }
    return best < ALIKE_LEAST ? 0 : best;
  }

  /** All that speaks for a link of the item that was taken, as if the link were not there. The row holds until the next look. */
  private look(from: number, to: number): Float32Array {
    const { row, left, right, links, asked, askedTitle, askedContext } = this;
    const { start, of, body, title, context } = right.words;
    let [words, titleSaid, titleEchoed, inContext] = [0, 0, 0, 0];
    for (let at = start[to]!, end = start[to + 1]!; at < end; at++) {
      const word = of[at]!;
      const said = body[at]!;
      const asks = asked[word]!;
      if (asks > 0) {
        words += asks * said;
        titleSaid += title[at]!;
      }
      if (said > 0) titleEchoed += askedTitle[word]!;
      inContext += askedContext[word]! * context[at]!;
    }
    row[AT.words] = words;
    row[AT.titleSaid] = titleSaid;
    row[AT.titleEchoed] = titleEchoed;
    row[AT.context] = inContext;
    row[AT.alike] = this.alikeWith(from, to);
    row[AT.often] = links.oftenWithout(from, to);
    row[AT.reverse] = this.isOne && links.linkedWith(to).has(from) ? 1 : 0;
    row[AT.beside] = links.countBeside(from, to, 2);
    row[AT.besideKnown] = links.countBesideKnown(from, to, 2);
    const [a, b] = [left.items[from]!.parent, right.items[to]!.parent];
    row[AT.near] = this.isOne ? 1 / (1 + Math.abs(from - to)) : 1 / (1 + 40 * Math.abs(from / left.items.length - to / right.items.length));
    row[AT.inside] = this.isOne && (a === to || b === from) ? 1 : 0;
    row[AT.common] = links.around ? Math.min(2, links.weighCommon(this.aroundTaken, from, to)) : 0;
    return row;
  }

  private explain(from: number, to: number): Reason[] {
    const row = this.look(from, to);
    const reasons: { by: number; reason: Reason }[] = [];
    const add = (features: Feature[], reason: () => Reason) => {
      const by = features.reduce((sum, name) => sum + this.weights[AT[name]]! * row[AT[name]]!, 0);
      if (by > 0.1 && features.some((name) => row[AT[name]]! > 0)) reasons.push({ by, reason: reason() });
    };
    const { links, asked, askedTitle, rarity } = this;
    const { start, of, body, title } = this.right.words;
    const [shared, said]: [number[], Set<number>] = [[], new Set()];
    for (let at = start[to]!; at < start[to + 1]!; at++) {
      const word = of[at]!;
      if (!(asked[word]! > 0) || !(body[at]! > 0)) continue;
      shared.push(word);
      if (title[at]! > 0 || askedTitle[word]! > 0) said.add(word);
    }
    // The most telling first.
    const name = (words: readonly number[]) => words.toSorted((x, y) => rarity[y]! - rarity[x]! || x - y).map((word) => this.words[word]!);
    if (shared.length > 0) add(['words', 'context'], () => ({ sort: 'words', words: name(shared) }));
    add(['titleSaid', 'titleEchoed'], () => ({ sort: 'title', words: name([...said]) }));
    if (row[AT.alike]! > 0) add(['alike'], () => ({ sort: 'alike', like: this.likest[to]! }));
    add(['beside', 'besideKnown'], () => ({ sort: 'beside', count: links.countBeside(from, to) + links.countBesideKnown(from, to) }));
    add(['reverse'], () => ({ sort: 'reverse' }));
    add(['common'], () => ({ sort: 'common', count: links.countCommon(this.aroundTaken, to) }));
    if (this.links.in[to]!.length > 1) add(['often'], () => ({ sort: 'often', count: this.links.in[to]!.length }));
    return reasons.sort((x, y) => y.by - x.by).map(({ reason }) => reason);
  }
}
