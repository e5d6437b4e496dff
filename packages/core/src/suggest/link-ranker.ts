import { Calibration } from './calibration.js';
import type { Candidate, KnownLinks, Reason } from './candidate.js';
import { fitLogistic, score } from './logistic.js';
import { asOnes, buildSide, mostOf, type RankedItem, shareSaid, type Side } from './ranked-side.js';
import { tellingWords } from './telling-words.js';
import { dot, largest, Postings, Sums, type Vector, Vocabulary } from './text-vectors.js';

const FEATURES = ['words', 'titleSaid', 'titleEchoed', 'context', 'alike', 'often', 'reverse', 'beside', 'besideKnown', 'near', 'inside', 'common'] as const;
type Feature = (typeof FEATURES)[number];
const AT = Object.fromEntries(FEATURES.map((name, index) => [name, index])) as Record<Feature, number>;
/** Where nothing was learnt yet: what was learnt on cross-references of published standards, none of which ships with this. */
const PRIOR = [1.4, 1.1, 0.5, 3.4, 1.6, 0.9, 1.5, 0.8, 0.9, 0.7, 0.5, 0.8, -5.2];
const RIDGE = 0.3;
/** Links that are learnt from, and items beside each that are no link. */
const MOST_LEARNT = 800;
const OTHERS = 40;
/** A refusal counts as so many pairs that are no links. */
const REFUSED_WEIGHT = 4;
/** Candidates that are looked at closely, for each that is asked for and at least; and those among them that only links lead to. */
const CLOSE_EACH = 5;
const CLOSE_LEAST = 60;
const BY_LINKS = 30;
/** What more than so many are linked with tells nothing. */
const HUB = 200;
/** Share of the links that are hidden to measure the likelihood; how many there must be, and how many are looked at. */
const HIDDEN = 0.3;
const LEAST_MEASURED = 8;
const MOST_MEASURED = 200;
const MEASURED_DEEP = 10;

interface Found {
  index: number;
  score: number;
  row: Float32Array;
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
  private readonly bodies: Postings;
  private readonly titles: Postings;
  private readonly contexts: Postings;
  private readonly leftContexts: Postings;
  private weights: readonly number[] = PRIOR;
  private calibration: Calibration | null = null;
  private out: Set<number>[] = [];
  private in: Set<number>[] = [];
  private around: KnownLinks['around'];
  private often = new Float32Array(0);
  /** Items of the right that are linked most often. */
  private usual: number[] = [];
  private readonly sums: Sums;
  private readonly likeness: Sums;
  /** For what is linked with items like the one asked about: how like the likest is, and its index. */
  private readonly alike: Sums;
  /** As `out`, as lists. */
  private linked: number[][] = [];
  /** Items of the right that are linked with each other item. */
  private readonly aroundRight = new Map<number, number[]>();

  /** Of two lists, or of one that is linked within itself when both are the same. */
  constructor(left: readonly RankedItem[], right: readonly RankedItem[]) {
    this.isOne = left === right;
    const vocabulary = new Vocabulary();
    const read = (items: readonly RankedItem[]) =>
      items.map(({ title, text }) => ({ title: vocabulary.take(tellingWords(title)), text: vocabulary.take(tellingWords(text)) }));
    const [own, others] = [read(left), this.isOne ? undefined : read(right)];
    this.left = buildSide(left, own, vocabulary);
    this.right = others ? buildSide(right, others, vocabulary) : this.left;
    this.words = vocabulary.words;
    const post = (vectors: readonly Vector[]) => new Postings(vectors, vocabulary.words.length);
    this.bodies = post(this.right.body);
    this.titles = post(this.right.title);
    this.contexts = post(this.right.context);
    this.leftContexts = this.isOne ? this.contexts : post(this.left.context);
    // Words, titles, contexts, and all of them weighed.
    this.sums = new Sums(right.length, 4);
    this.likeness = new Sums(left.length, 1);
    this.alike = new Sums(right.length, 2);
    this.know({ links: [] });
  }

  /** Takes the links that are there into account without learning from them. */
  know({ links, around }: KnownLinks): void {
    this.out = this.left.items.map(() => new Set());
    this.in = this.right.items.map(() => new Set());
    for (const [from, to] of links) {
      this.out[from]!.add(to);
      this.in[to]!.add(from);
    }
    this.linked = this.out.map((others) => [...others]);
    this.often = Float32Array.from(this.in, ({ size }) => Math.log(1 + size));
    this.usual = largest(Int32Array.from(this.in.keys()), this.often, BY_LINKS).filter((to) => this.often[to]! > 0);
    this.around = around;
    this.aroundRight.clear();
    around?.right.forEach((others, to) => {
      for (const other of others) {
        const known = this.aroundRight.get(other);
        if (known) known.push(to);
        else this.aroundRight.set(other, [to]);
      }
    });
  }

  /** Learns from the links that are there how much each reason counts here, and how far its own judgement can be relied on. */
  learn(known: KnownLinks): void {
    this.calibration = this.measure(known);
    this.know(known);
    this.weights = this.fit(known.links, known.refused);
  }

  private fit(links: KnownLinks['links'], refused: KnownLinks['links'] = []): readonly number[] {
    if (links.length === 0) return PRIOR;
    const rows: Float32Array[] = [];
    const labels: number[] = [];
    const random = seeded(links.length + this.right.items.length);
    for (const [from, to] of thin(links, MOST_LEARNT)) {
      rows.push(this.look(from, to));
      labels.push(1);
      for (let count = 0; count < OTHERS; count++) {
        const other = Math.floor(random() * this.right.items.length);
        if (this.out[from]!.has(other) || (this.isOne && other === from)) continue;
        rows.push(this.look(from, other));
        labels.push(0);
      }
    }
    // What somebody looked at and refused tells more than what nobody linked.
    for (const [from, to] of thin(refused, MOST_LEARNT)) {
      if (this.out[from]!.has(to)) continue;
      for (let count = 0; count < REFUSED_WEIGHT; count++) {
        rows.push(this.look(from, to));
        labels.push(0);
      }
    }
    return fitLogistic(rows, labels, PRIOR, RIDGE);
  }

  /** The best `most` that an item of the left may be linked with and is not, best first. */
  rank(from: number, most = 10, isLeftOut?: (to: number) => boolean): Candidate[] {
    const best = this.findBest(from, most, (to) => this.out[from]!.has(to) || isLeftOut?.(to) === true);
    return best.map(({ index, score: value, row }) => ({
      index,
      score: value,
      likelihood: this.calibration?.of(value) ?? null,
      reasons: this.explain(from, index, row, this.alike.of(0, index) > 0 ? this.alike.of(1, index) : undefined),
    }));
  }

  /** What stands to be linked, by all that speaks for it but that they are linked. */
  private findBest(from: number, most: number, isLeftOut: (to: number) => boolean): Found[] {
    const { sums, weights } = this;
    const [words, titleSaid, context, rough] = sums.columns as [Float32Array, Float32Array, Float32Array, Float32Array];
    sums.begin();
    const query = this.left.query[from]!;
    this.bodies.addTo(sums, 0, query, 1 / mostOf(query));
    this.titles.addTo(sums, 1, asOnes(query));
    this.contexts.addTo(sums, 2, this.left.context[from]!);
    const touched = sums.touched();
    const [a, b, c, d] = [weights[AT.words]!, weights[AT.titleSaid]!, weights[AT.context]!, weights[AT.often]!];
    for (const to of touched) rough[to] = a * words[to]! + b * titleSaid[to]! + c * context[to]! + d * this.often[to]!;
    const close = new Set(largest(touched, rough, Math.max(CLOSE_LEAST, CLOSE_EACH * most)));
    for (const to of this.usual) close.add(to);
    for (const to of this.findByStructure(from)) close.add(to);
    this.findAlike(from);
    for (const to of largest(this.alike.touched(), this.alike.columns[0]!, BY_LINKS)) close.add(to);
    const best: Found[] = [];
    for (const to of close) {
      if ((this.isOne && to === from) || isLeftOut(to)) continue;
      const row = this.look(from, to, { words: sums.of(0, to), titleSaid: sums.of(1, to), context: sums.of(2, to), alike: this.alike.of(0, to) });
      best.push({ index: to, score: score(weights, row), row });
    }
    return best.sort((x, y) => y.score - x.score || x.index - y.index).slice(0, most);
  }

  /** Notes what is linked with items like this one, how like the likest of them is and which it is. */
  private findAlike(from: number): void {
    const { likeness, alike } = this;
    const [values, [best, which]] = [likeness.columns[0]!, alike.columns as [Float32Array, Float32Array]];
    likeness.begin();
    alike.begin();
    this.leftContexts.addTo(likeness, 0, this.left.context[from]!);
    for (let at = 0; at < likeness.count; at++) {
      const like = likeness.list[at]!;
      const value = values[like]!;
      if (like === from) continue;
      for (const to of this.linked[like]!) {
        alike.touch(to);
        if (value <= best[to]!) continue;
        best[to] = value;
        which[to] = like;
      }
    }
  }

  /** What the links around an item lead to: what its neighbours are linked with, and what stands beside what it is linked with. */
  private findByStructure(from: number): Set<number> {
    const found = new Set<number>();
    const { parent } = this.left.items[from]!;
    for (const beside of this.left.children.get(parent) ?? []) if (beside !== from) for (const to of this.out[beside]!) found.add(to);
    for (const to of this.out[from]!) for (const beside of this.right.children.get(this.right.items[to]!.parent) ?? []) found.add(beside);
    if (this.isOne) for (const other of this.in[from]!) found.add(other);
    for (const other of this.around?.left[from] ?? []) {
      const there = this.aroundRight.get(other) ?? [];
      if (there.length <= HUB) for (const to of there) found.add(to);
    }
    return found;
  }

  /** All that speaks for a link, as if it were not there. What was summed for many at once may be handed in. */
  private look(from: number, to: number, summed?: { words: number; titleSaid: number; context: number; alike: number }): Float32Array {
    const row = new Float32Array(FEATURES.length);
    const { left, right, out } = this;
    const query = left.query[from]!;
    row[AT.words] = summed?.words ?? dot(query, right.body[to]!) / mostOf(query);
    row[AT.titleSaid] = summed?.titleSaid ?? shareSaid(right.title[to]!, query);
    row[AT.titleEchoed] = shareSaid(left.title[from]!, right.query[to]!);
    row[AT.context] = summed?.context ?? dot(left.context[from]!, right.context[to]!);
    const isLinked = out[from]!.has(to);
    if (summed) row[AT.alike] = summed.alike;
    else for (const like of this.in[to]!) if (like !== from) row[AT.alike] = Math.max(row[AT.alike]!, dot(left.context[from]!, left.context[like]!));
    row[AT.often] = isLinked ? Math.log(this.in[to]!.size) : this.often[to]!;
    row[AT.reverse] = this.isOne && out[to]!.has(from) ? 1 : 0;
    row[AT.beside] = Math.min(2, this.countBeside(from, to));
    row[AT.besideKnown] = Math.min(2, this.countBesideKnown(from, to));
    const [a, b] = [left.items[from]!.parent, right.items[to]!.parent];
    row[AT.near] = this.isOne ? 1 / (1 + Math.abs(from - to)) : 1 / (1 + 40 * Math.abs(from / left.items.length - to / right.items.length));
    row[AT.inside] = this.isOne && (a === to || b === from) ? 1 : 0;
    row[AT.common] = Math.min(2, this.weighCommon(from, to));
    return row;
  }

  private countBeside(from: number, to: number): number {
    const { parent } = this.left.items[from]!;
    if (parent < 0) return 0;
    let count = 0;
    for (const like of this.in[to]!) if (like !== from && this.left.items[like]!.parent === parent) count++;
    return count;
  }

  private countBesideKnown(from: number, to: number): number {
    const { parent } = this.right.items[to]!;
    if (parent < 0) return 0;
    let count = 0;
    for (const known of this.out[from]!) if (known !== to && this.right.items[known]!.parent === parent) count++;
    return count;
  }

  /** Others that both are linked with; those that are linked with many tell less (Adamic and Adar, "Friends and neighbors on the Web", 2003). */
  private weighCommon(from: number, to: number): number {
    if (!this.around) return 0;
    const [own, others] = [this.around.left[from] ?? [], this.around.right[to] ?? []];
    if (own.length === 0 || others.length === 0) return 0;
    const there = new Set(others);
    return new Set(own.filter((one) => there.has(one))).size / Math.log(2 + own.length + others.length);
  }

  private explain(from: number, to: number, row: Float32Array, like: number | undefined): Reason[] {
    const reasons: { by: number; reason: Reason }[] = [];
    const add = (features: Feature[], reason: () => Reason) => {
      const by = features.reduce((sum, name) => sum + this.weights[AT[name]]! * row[AT[name]]!, 0);
      if (by > 0.1 && features.some((name) => row[AT[name]]! > 0)) reasons.push({ by, reason: reason() });
    };
    const [query, other] = [this.left.query[from]!, this.right.query[to]!];
    const shared = this.nameShared(query, other);
    if (shared.length > 0) add(['words', 'context'], () => ({ sort: 'words', words: shared }));
    add(['titleSaid', 'titleEchoed'], () => {
      const said = [...this.nameShared(this.right.title[to]!, query), ...this.nameShared(this.left.title[from]!, other)];
      return { sort: 'title', words: [...new Set(said)] };
    });
    if (like !== undefined) add(['alike'], () => ({ sort: 'alike', like }));
    add(['beside', 'besideKnown'], () => ({ sort: 'beside', count: this.countBeside(from, to) + this.countBesideKnown(from, to) }));
    add(['reverse'], () => ({ sort: 'reverse' }));
    add(['common'], () => ({ sort: 'common', count: (this.around?.left[from] ?? []).filter((one) => this.around?.right[to]?.includes(one)).length }));
    if (this.in[to]!.size > 1) add(['often'], () => ({ sort: 'often', count: this.in[to]!.size }));
    return reasons.sort((a, b) => b.by - a.by).map(({ reason }) => reason);
  }

  /** Words that two vectors share, the most telling first, in the form that they are compared in. */
  private nameShared(a: Vector, b: Vector): string[] {
    const there = new Set(b.words);
    const shared: [number, number][] = [];
    a.words.forEach((word, at) => {
      if (there.has(word)) shared.push([word, a.weights[at]!]);
    });
    return shared.sort((x, y) => y[1] - x[1] || x[0] - y[0]).map(([word]) => this.words[word]!);
  }

  /**
   * How likely a candidate of a score is right: some links are hidden, the others learnt from, and the best candidates compared with the hidden ones.
   */
  private measure({ links, around, refused }: KnownLinks): Calibration | null {
    const random = seeded(links.length);
    const hidden: (readonly [number, number])[] = [];
    const rest: (readonly [number, number])[] = [];
    for (const link of links) (random() < HIDDEN ? hidden : rest).push(link);
    if (hidden.length < LEAST_MEASURED) return null;
    this.know({ links: rest, ...(around && { around }) });
    this.weights = this.fit(rest, refused);
    const wanted = new Map<number, Set<number>>();
    for (const [from, to] of hidden) wanted.set(from, (wanted.get(from) ?? new Set()).add(to));
    const cases: { score: number; isRight: boolean }[] = [];
    for (const from of thin([...wanted.keys()], MOST_MEASURED))
      for (const { index, score: value } of this.findBest(from, MEASURED_DEEP, (to) => this.out[from]!.has(to)))
        cases.push({ score: value, isRight: wanted.get(from)!.has(index) });
    return new Calibration(cases);
  }
}

/** Evenly chosen entries of a long list. */
function thin<T>(list: readonly T[], most: number): readonly T[] {
  if (list.length <= most) return list;
  return Array.from({ length: most }, (_, at) => list[Math.floor((at * list.length) / most)]!);
}

/** Numbers from 0 to 1 that are the same for the same seed (Numerical Recipes' linear congruence). */
function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
}
