import type { Dependencies } from './dependencies.js';
import { NodeHeap } from './node-heap.js';
import type { buildDirectedRows } from './strong-components.js';

export type Rows = ReturnType<typeof buildDirectedRows>;

/** Cycles of which a cover takes one edge each; each once. */
export class Cuts {
  readonly list: Int32Array[] = [];
  private readonly known = new Set<string>();

  constructor(cycles: readonly Int32Array[]) {
    for (const cycle of cycles) this.add(cycle);
  }

  /** Says whether it is new. */
  add(cycle: Int32Array): boolean {
    const key = [...cycle].sort((a, b) => a - b).join();
    if (this.known.has(key)) return false;
    this.known.add(key);
    this.list.push(cycle);
    return true;
  }

  /** Adds those of others of which a cover has no edge; says whether there was any. */
  addMissed(others: Cuts, cover: readonly number[]): boolean {
    const taken = new Set(cover);
    let isMissed = false;
    for (const cycle of others.list) if (!cycle.some((edge) => taken.has(edge))) isMissed = this.add(cycle) || isMissed;
    return isMissed;
  }
}

/** The shortest cycles through an edge, without edges that are gone: one, and a second that shares no other edge with it. */
export function cyclesThrough({ nodes, from, to }: Dependencies, { start, target, edge: edgeAt }: Rows, edge: number, gone: Uint8Array): Int32Array[] {
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

/** Steps of a way count for so much, so that of ways as good as each other the shortest is taken. */
const STEP = 1e-4;

/** The cycle through an edge of which least is taken, where that is less than one (Dijkstra 1959). */
export function leastTaken(
  { nodes, from, to }: Dependencies,
  { start, target, edge: edgeAt }: Rows,
  edge: number,
  taken: Float64Array,
): Int32Array | undefined {
  const [begin, end, most] = [to[edge]!, from[edge]!, 1 - 1e-6 - taken[edge]!];
  const by = new Int32Array(nodes).fill(-1);
  const far = new Float64Array(nodes).fill(Number.POSITIVE_INFINITY);
  const heap = new NodeHeap(far);
  far[begin] = 0;
  heap.push(begin);
  for (let node = heap.pop(); node !== undefined && node !== end; node = heap.pop()) {
    if (far[node]! > most + 1) break;
    for (let place = start[node]!, last = start[node + 1]!; place < last; place++) {
      const length = far[node]! + taken[edgeAt[place]!]! + STEP;
      if (length >= far[target[place]!]!) continue;
      far[target[place]!] = length;
      by[target[place]!] = edgeAt[place]!;
      heap.push(target[place]!);
    }
  }
  if (by[end] === -1) return undefined;
  const cycle = [edge];
  let sum = 0;
  for (let node = end; node !== begin; node = from[by[node]!]!) {
    cycle.push(by[node]!);
    sum += taken[by[node]!]!;
  }
  return sum < most ? Int32Array.from(cycle) : undefined;
}

/** Edges such that each cut holds one: what breaks most for its weight first, less what turned out to be needless. */
export function coverQuickly(weight: Float64Array, cuts: readonly Int32Array[]): number[] {
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
