import { seeded } from '../numbers/seeded.js';
import type { Dependencies } from './dependencies.js';
import { Cuts, coverQuickly, cyclesThrough, leastTaken, type Rows } from './cycle-cuts.js';
import { OrderSearch } from './order-search.js';
import { buildDirectedRows, findStrongComponents } from './strong-components.js';

/** A cover: edges of which at least one is taken from each cut, as cheaply as can be, and what they cost. */
export interface Cover {
  chosen: number[];
  /** How much of each chosen edge is taken: 1 but where parts may be taken. */
  share: number[];
  /** The least that any cover costs; infinite where all cost more than they may. */
  bound: number;
}

export interface CoverLimits {
  /** How long it may take, in seconds. */
  seconds: number;
  /** Whether parts of edges may be taken that come to one for each cut: quickly found, and never dearer than whole ones. */
  inParts?: boolean;
  /** Covers that cost more than this are of no use. */
  atMost?: number;
}

/** Finds the cheapest edges such that each cut holds one. Gives nothing where it found none that it can prove within its time. */
export type CoverSolver = (weight: Float64Array, cuts: readonly Int32Array[], limits: CoverLimits) => Cover | undefined;

export interface FeedbackOrder {
  /** Things in their order: what is depended on stands before what depends on it, but for the feedback. */
  order: Int32Array;
  /** Things in a cycle with others, block by block as they stand. */
  blocks: { start: number; size: number; weight: number; bound: number; feedback: number[] }[];
  /** Edges that lead to what stands after. */
  feedback: number[];
  /** Their weight in all, and the least that any order has. The same where the order is proven. */
  weight: number;
  bound: number;
}

export interface OrderOptions {
  seed: number;
  /** How long it may take, in seconds. */
  seconds: number;
  solve?: CoverSolver | undefined;
  now: () => number;
  onProgress?: ((share: number) => void) | undefined;
}

/**
 * Orders things so that dependencies on what stands after are fewest. What is in no cycle follows from its dependencies alone, in the order it was given;
 * within each cycle the fewest edges are looked for: first by moving things about, then, with a solver, exactly, by cuts of cycles that are added as they
 * are met. Where time runs out, the best order found is given with the least that any could have.
 */
export function orderByFeedback({ nodes, from, to, weight }: Dependencies, { seed, seconds, solve, now, onProgress }: OrderOptions): FeedbackOrder {
  const end = now() + seconds * 1000;
  const { of, count } = findStrongComponents(nodes, buildDirectedRows(nodes, from, to));
  const members: number[][] = Array.from({ length: count }, () => []);
  of.forEach((component, node) => members[component]!.push(node));
  const cyclic = members.filter((one) => one.length > 1).length;
  const edgesOf: number[][] = Array.from({ length: count }, () => []);
  for (let edge = 0; edge < from.length; edge++) if (of[from[edge]!] === of[to[edge]!]) edgesOf[of[from[edge]!]!]!.push(edge);
  const order: number[] = [];
  const blocks: FeedbackOrder['blocks'] = [];
  const feedback: number[] = [];
  for (const component of sortComponents(members, of, from, to)) {
    const inside = members[component]!;
    if (inside.length === 1) {
      order.push(inside[0]!);
      continue;
    }
    const edges = edgesOf[component]!;
    const local = new Map(inside.map((node, at) => [node, at]));
    const part: Dependencies = {
      nodes: inside.length,
      from: Int32Array.from(edges, (edge) => local.get(from[edge]!)!),
      to: Int32Array.from(edges, (edge) => local.get(to[edge]!)!),
      weight: Float64Array.from(edges, (edge) => weight[edge]!),
    };
    const share = (end - now()) / Math.max(1, cyclic - blocks.length);
    const found = orderCycle(part, { seed, until: now() + Math.max(0, share), solve, now });
    blocks.push({ start: order.length, size: inside.length, weight: found.weight, bound: found.bound, feedback: found.feedback.map((at) => edges[at]!) });
    feedback.push(...blocks.at(-1)!.feedback);
    for (const at of found.order) order.push(inside[at]!);
    onProgress?.(blocks.length / cyclic);
  }
  return {
    ...{ order: Int32Array.from(order), blocks, feedback },
    weight: blocks.reduce((sum, block) => sum + block.weight, 0),
    bound: blocks.reduce((sum, block) => sum + block.bound, 0),
  };
}

/** Components with what they depend on before them; where that leaves a choice, in the order in which they were given. */
function sortComponents(members: readonly (readonly number[])[], of: Int32Array, from: Int32Array, to: Int32Array): number[] {
  const waits = new Int32Array(members.length);
  const after: Set<number>[] = members.map(() => new Set());
  for (let edge = 0; edge < from.length; edge++) {
    const [dependent, base] = [of[from[edge]!]!, of[to[edge]!]!];
    if (dependent === base || after[base]!.has(dependent)) continue;
    after[base]!.add(dependent);
    waits[dependent]!++;
  }
  const first = members.map((one) => one[0]!);
  const ready = [...members.keys()].filter((one) => waits[one] === 0).sort((a, b) => first[b]! - first[a]!);
  const sorted: number[] = [];
  while (ready.length > 0) {
    const next = ready.pop()!;
    sorted.push(next);
    for (const one of after[next]!) {
      if (--waits[one]! > 0) continue;
      let [low, high] = [0, ready.length];
      while (low < high) {
        const middle = (low + high) >> 1;
        if (first[ready[middle]!]! > first[one]!) low = middle + 1;
        else high = middle;
      }
      ready.splice(low, 0, one);
    }
  }
  return sorted;
}

/** Covers that are tried in a row without a better order. */
const PATIENCE = 50;

interface CycleOptions {
  seed: number;
  until: number;
  solve: CoverSolver | undefined;
  now: () => number;
}

function orderCycle(part: Dependencies, { seed, until, solve, now }: CycleOptions) {
  const heuristic = new OrderSearch(part, seed);
  heuristic.improve();
  heuristic.shake(solve ? Math.min(until, now() + (until - now()) / 50) : until, now);
  const best = new BestOrder(part, heuristic);
  // A cycle has one edge at least.
  if (!solve) return best.result(0);
  const { weight } = part;
  const step = stepOf(weight);
  /** Sums of weights go in steps, so that a bound between two of them is as good as the next. */
  const stepped = (bound: number) => (step > 0 ? Math.ceil(bound / step - 1e-6) * step : bound);
  const left = () => (until - now()) / 1000;
  const isOpen = (bound: number) => now() < until && bound < best.weight - 1e-6;
  // Covers that are found quickly lead to good orders; their cuts are too many to be solved.
  const rough = new Cuts(best.cycles());
  const half = now() + (until - now()) / 50;
  while (now() < half && best.tryCover(rough, coverQuickly(weight, rough.list)));
  const cuts = new Cuts(best.cycles());
  let bound = 0;
  const shares = new Float64Array(weight.length);
  // Taking parts of edges is solved in no time, and tells exactly which cycles it takes too little of: every cycle has an edge of any feedback.
  while (isOpen(stepped(bound))) {
    const cover = solve(weight, cuts.list, { seconds: left(), inParts: true });
    if (!cover) break;
    const before = bound;
    bound = Math.max(bound, cover.bound);
    shares.fill(0);
    cover.chosen.forEach((edge, at) => {
      shares[edge] = cover.share[at]!;
    });
    const isMissed = best.addUncovered(cuts, shares);
    best.tryCover(
      cuts,
      cover.chosen.filter((edge) => shares[edge]! > 0.5 - 1e-6),
    );
    // Where more cycles hardly raise what is the least, whole edges do.
    if (!isMissed || bound - before < Math.max(1e-9, step / 50)) break;
  }
  // What is taken in parts is a hint at what is best taken whole.
  const random = seeded(seed);
  const more = new Cuts(cuts.list);
  for (let idle = 0; idle < PATIENCE && isOpen(stepped(bound)); idle++) {
    const before = best.weight;
    best.tryCover(
      more,
      coverQuickly(
        weight.map((one, edge) => one * (1.02 - shares[edge]!) * (0.7 + 0.3 * random())),
        more.list,
      ),
    );
    if (best.weight < before) idle = 0;
  }
  while (isOpen(stepped(bound))) {
    const cover = solve(weight, cuts.list, { seconds: left(), atMost: best.weight - Math.max(step, 1e-6) });
    if (!cover) break;
    bound = Math.max(bound, cover.bound);
    if (bound >= best.weight) break;
    const isKnown = cuts.addMissed(more, cover.chosen);
    if (!best.tryCover(cuts, cover.chosen) && !isKnown) break;
  }
  return best.result(stepped(bound));
}

/** The best order found so far of things in a cycle, with its feedback. */
class BestOrder {
  weight: number;
  private order: Int32Array;
  private feedback: number[];
  private readonly rows: Rows;

  constructor(
    private readonly part: Dependencies,
    private readonly search: OrderSearch,
  ) {
    this.order = search.order();
    this.feedback = feedbackOf(part, this.order);
    this.weight = sumOf(part.weight, this.feedback);
    this.rows = buildDirectedRows(part.nodes, part.from, part.to);
  }

  result(bound: number) {
    // Sums of fractions are the same but for their last digit.
    const known = Math.max(
      bound,
      this.part.weight.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY),
    );
    return { order: this.order, feedback: this.feedback, weight: this.weight, bound: known > this.weight - 1e-6 ? this.weight : known };
  }

  /** Cycles through the feedback. */
  cycles(): Int32Array[] {
    const none = new Uint8Array(this.part.from.length);
    return this.feedback.flatMap((edge) => cyclesThrough(this.part, this.rows, edge, none));
  }

  /** Takes a cover away, keeps the order that is left where it is better, and adds the cycles that the cover missed; says whether it missed any. */
  tryCover(cuts: Cuts, chosen: readonly number[]): boolean {
    const gone = new Uint8Array(this.part.from.length);
    for (const edge of chosen) gone[edge] = 1;
    const { left, order } = orderWithout(this.part, gone, this.search);
    const back = feedbackOf(this.part, order);
    const cost = sumOf(this.part.weight, back);
    if (cost < this.weight) [this.order, this.feedback, this.weight] = [order, back, cost];
    let isMissed = false;
    for (const edge of left) for (const cycle of cyclesThrough(this.part, this.rows, edge, gone)) isMissed = cuts.add(cycle) || isMissed;
    return isMissed;
  }

  /** Adds, for each edge of the feedback, the cycle through it of which least is taken, where that is less than one; says whether there was any. */
  addUncovered(cuts: Cuts, taken: Float64Array): boolean {
    let isMissed = false;
    for (const edge of this.feedback) {
      const cycle = leastTaken(this.part, this.rows, edge, taken);
      if (cycle) isMissed = cuts.add(cycle) || isMissed;
    }
    return isMissed;
  }
}

/** The greatest number that all weights are whole times of, to a thousandth; 0 where there is none. */
function stepOf(weight: Float64Array): number {
  let step = 0;
  for (const one of weight) {
    const whole = Math.round(one * 1000);
    if (Math.abs(whole - one * 1000) > 1e-6) return 0;
    let other = whole;
    while (other > 0) [step, other] = [other, step % other];
  }
  return step / 1000;
}

const sumOf = (weight: Float64Array, edges: readonly number[]) => edges.reduce((sum, edge) => sum + weight[edge]!, 0);

function feedbackOf({ nodes, from, to }: Dependencies, order: Int32Array): number[] {
  const place = new Int32Array(nodes);
  order.forEach((node, at) => {
    place[node] = at;
  });
  const found: number[] = [];
  for (let edge = 0; edge < from.length; edge++) if (place[from[edge]!]! < place[to[edge]!]!) found.push(edge);
  return found;
}

/** An order of what is left without some edges, improved as it stands for the whole; and the feedback that was left in it. */
function orderWithout(part: Dependencies, gone: Uint8Array, whole: OrderSearch): { order: Int32Array; left: number[] } {
  const kept = [...part.from.keys()].filter((edge) => !gone[edge]);
  const rest: Dependencies = {
    nodes: part.nodes,
    from: Int32Array.from(kept, (edge) => part.from[edge]!),
    to: Int32Array.from(kept, (edge) => part.to[edge]!),
    weight: Float64Array.from(kept, (edge) => part.weight[edge]!),
  };
  const search = new OrderSearch(rest, 1);
  search.improve();
  const left = feedbackOf(rest, search.order()).map((at) => kept[at]!);
  whole.set(search.order());
  whole.improve();
  return { order: whole.order(), left };
}
