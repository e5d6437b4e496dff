import { Calibration } from './calibration.js';
import type { KnownLinks } from './candidate.js';
import { fitLogistic } from './logistic.js';
import { PRIOR } from './pair-features.js';

const RIDGE = 0.3;
/** Links that are learnt from, and items beside each that are no link. */
const MOST_LEARNT = 800;
const OTHERS = 40;
/** A refusal counts as so many pairs that are no links. */
const REFUSED_WEIGHT = 4;
/** Share of the links that are hidden to measure the likelihood; how many there must be, and how many are looked at. */
const HIDDEN = 0.3;
const LEAST_MEASURED = 8;
const MOST_MEASURED = 200;
const MEASURED_DEEP = 10;

/** What is learnt from: rows of features of pairs, as if these were not linked. */
export interface Looker {
  items: number;
  isLinked: (from: number, to: number) => boolean;
  /** Whether both are one and the same item. */
  isSame: (from: number, to: number) => boolean;
  look: (from: number, to: number) => Float32Array;
}

/** How much each feature counts here, by links that are there, pairs beside them that are not, and pairs that somebody refused. */
export function fitWeights({ items, isLinked, isSame, look }: Looker, { links, refused = [] }: KnownLinks): readonly number[] {
  if (links.length === 0) return PRIOR;
  const rows: Float32Array[] = [];
  const labels: number[] = [];
  const random = seeded(links.length + items);
  for (const [from, to] of thin(links, MOST_LEARNT)) {
    rows.push(look(from, to).slice());
    labels.push(1);
    for (let count = 0; count < OTHERS; count++) {
      const other = Math.floor(random() * items);
      if (isLinked(from, other) || isSame(from, other)) continue;
      rows.push(look(from, other).slice());
      labels.push(0);
    }
  }
  // What somebody looked at and refused tells more than what nobody linked.
  for (const [from, to] of thin(refused, MOST_LEARNT)) {
    if (isLinked(from, to)) continue;
    const row = look(from, to).slice();
    for (let count = 0; count < REFUSED_WEIGHT; count++) {
      rows.push(row);
      labels.push(0);
    }
  }
  return fitLogistic(rows, labels, PRIOR, RIDGE);
}

/** Links some of which are hidden, to be found again; nothing where there are too few to tell anything. */
export function hideSome({ links }: KnownLinks): { rest: KnownLinks['links']; hidden: ReadonlyMap<number, ReadonlySet<number>> } | undefined {
  const random = seeded(links.length);
  const hidden = new Map<number, Set<number>>();
  const rest: (readonly [number, number])[] = [];
  let count = 0;
  for (const link of links)
    if (random() < HIDDEN) {
      count++;
      hidden.set(link[0], (hidden.get(link[0]) ?? new Set()).add(link[1]));
    } else rest.push(link);
  return count < LEAST_MEASURED ? undefined : { rest, hidden };
}

/** How many of those told with a score were right, by the hidden links. */
export function calibrate(
  hidden: ReadonlyMap<number, ReadonlySet<number>>,
  find: (from: number, most: number) => readonly { index: number; score: number }[],
): Calibration {
  const cases = thin([...hidden.keys()], MOST_MEASURED).flatMap((from) =>
    find(from, MEASURED_DEEP).map(({ index, score }) => ({ score, isRight: hidden.get(from)!.has(index) })),
  );
  return new Calibration(cases);
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
