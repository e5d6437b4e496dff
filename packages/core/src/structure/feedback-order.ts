import type { Dependencies } from './dependencies.js';
import { OrderSearch } from './order-search.js';
import { buildDirectedRows, findStrongComponents } from './strong-components.js';

/** A cover: edges of which at least one is taken from each cut, as cheaply as can be, and what they cost. */
export interface Cover {
  chosen: number[];
  bound: number;
}

/** Finds the cheapest edges such that each cut holds one. Gives nothing where it found none that it can prove within its time, in seconds. */
export type CoverSolver = (weight: Float64Array, cuts: readonly Int32Array[], seconds: number) => Cover | undefined;

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

interface CycleOptions {
  seed: number;
  until: number;
  solve: CoverSolver | undefined;
  now: () => number;
}

function orderCycle(part: Dependencies, { seed, until, solve, now }: CycleOptions) {
  const { nodes, from, to, weight } = part;
  const heuristic = new OrderSearch(part, seed);
  heuristic.improve();
  heuristic.shake(solve ? Math.min(until, now() + (until - now()) / 3) : until, now);
  let best = heuristic.order();
  let feedback = feedbackOf(part, best);
  let total = sumOf(weight, feedback);
  let bound = 1;
  if (solve) {
    const rows = buildDirectedRows(nodes, from, to);
    const none = new Uint8Array(from.length);
    /** Takes a cover away, keeps the order that is left where it is better, and adds the cycles that the cover missed; says whether it missed any. */
    const tryCover = (cuts: Cuts, chosen: readonly number[]): boolean => {
      const gone = new Uint8Array(from.length);
      for (const edge of chosen) gone[edge] = 1;
      const { left, order } = orderWithout(part, gone, heuristic);
      const back = feedbackOf(part, order);
      const cost = sumOf(weight, back);
      if (cost < total) [best, feedback, total] = [order, back, cost];
      let isMissed = false;
      for (const edge of left) for (const cycle of cyclesThrough(part, rows, edge, gone)) isMissed = cuts.add(cycle) || isMissed;
      return isMissed;
    };
    // Covers that are found quickly lead to good orders; their cuts are too many to be solved.
    const rough = new Cuts();
    for (const edge of feedback) for (const cycle of cyclesThrough(part, rows, edge, none)) rough.add(cycle);
    const half = now() + (until - now()) / 4;
    while (now() < half && tryCover(rough, coverQuickly(weight, rough.list)));
    const cuts = new Cuts();
    for (const edge of feedback) for (const cycle of cyclesThrough(part, rows, edge, none)) cuts.add(cycle);
    while (now() < until && bound < total - 1e-6) {
      const cover = solve(weight, cuts.list, (until - now()) / 1000);
      if (!cover) break;
      bound = Math.max(bound, Math.ceil(cover.bound - 1e-6));
      if (!tryCover(cuts, cover.chosen)) break;
    }
  }
  return { order: best, feedback, weight: total, bound: Math.min(bound, total) };
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

type Rows = ReturnType<typeof buildDirectedRows>;

/** Cycles of which a cover takes one edge each; each once. */
class Cuts {
  readonly list: Int32Array[] = [];
  private readonly known = new Set<string>();

  /** Says whether it is new. */
  add(cycle: Int32Array): boolean {
    const key = [...cycle].sort((a, b) => a - b).join();
    if (this.known.has(key)) return false;
    this.known.add(key);
    this.list.push(cycle);
    return true;
  }
}

/** The shortest cycles through an edge, without edges that are gone: one, and a second that shares no other edge with it. */
function cyclesThrough({ nodes, from, to }: Dependencies, { start, target, edge: edgeAt }: Rows, edge: number, gone: Uint8Array): Int32Array[] {
  const found: Int32Array[] = [];
  const avoid = new Set<number>();
  for (let turn = 0; turn < 2; turn++) {
    const by = new Int32Array(nodes).fill(-1);
    const queue = [to[edge]!];
    by[to[edge]!] = edge;
    search: for (let at = 0; at < queue.length; at++)
      for (let place = start[queue[at]!]!, last = start[queue[at]! + 1]!; place < last; place++) {
        const [other, taken] = [target[place]!, edgeAt[place]!];
        if (gone[taken] || by[other] !== -1 || avoid.has(taken)) continue;
        by[other] = taken;
        if (other === from[edge]) break search;
        queue.push(other);
      }
    if (by[from[edge]!] === -1) break;
    const cycle = [edge];
    for (let node = from[edge]!; node !== to[edge]!; node = from[by[node]!]!) {
      cycle.push(by[node]!);
      avoid.add(by[node]!);
    }
    found.push(Int32Array.from(cycle));
  }
  return found;
}

/** Edges such that each cut holds one: what breaks most for its weight first, less what turned out to be needless. */
function coverQuickly(weight: Float64Array, cuts: readonly Int32Array[]): number[] {
  const cutsOf = new Map<number, number[]>();
  cuts.forEach((cut, at) => {
    for (const edge of cut) {
      const list = cutsOf.get(edge);
      if (list) list.push(at);
      else cutsOf.set(edge, [at]);
    }
  });
  const breaks = new Map([...cutsOf].map(([edge, list]) => [edge, list.length]));
  const held = new Int32Array(cuts.length);
  const chosen: number[] = [];
  for (let left = cuts.length; left > 0; ) {
    let best = -1;
    let most = 0;
    for (const [edge, count] of breaks) if (count / weight[edge]! > most) [best, most] = [edge, count / weight[edge]!];
    chosen.push(best);
    for (const cut of cutsOf.get(best)!) {
      if (held[cut]!++ > 0) continue;
      left--;
      for (const edge of cuts[cut]!) breaks.set(edge, breaks.get(edge)! - 1);
    }
  }
  return chosen.filter((edge) => {
    if (cutsOf.get(edge)!.some((cut) => held[cut] === 1)) return true;
    for (const cut of cutsOf.get(edge)!) held[cut]!--;
    return false;
  });
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
