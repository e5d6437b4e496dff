import { seeded } from '../numbers/seeded.js';
import type { Dependencies } from './dependencies.js';

/** Moves things about in an order for as long as that saves feedback. */
export class OrderSearch {
  private readonly random: () => number;
  private readonly near: { other: number; weight: number; depends: boolean }[][];
  private sequence: number[];
  private readonly place: Int32Array;

  constructor(
    private readonly part: Dependencies,
    seed: number,
  ) {
    this.random = seeded(seed);
    this.near = Array.from({ length: part.nodes }, () => []);
    for (let edge = 0; edge < part.from.length; edge++) {
      const [from, to, weight] = [part.from[edge]!, part.to[edge]!, part.weight[edge]!];
      this.near[from]!.push({ other: to, weight, depends: true });
      this.near[to]!.push({ other: from, weight, depends: false });
    }
    this.place = new Int32Array(part.nodes);
    this.sequence = this.begin();
    this.number();
  }

  order(): Int32Array {
    return Int32Array.from(this.sequence);
  }

  /** Each thing is put where it costs least; then those that are tied with what moved, until none moves. */
  improve(begin: readonly number[] = this.sequence): void {
    const queue = [...begin];
    const isQueued = new Uint8Array(this.part.nodes);
    for (const node of queue) isQueued[node] = 1;
    for (let head = 0; head < queue.length; head++) {
      const node = queue[head]!;
      isQueued[node] = 0;
      const to = this.bestPlace(node);
      if (to === this.place[node]) continue;
      this.move(node, to);
      for (const { other } of this.near[node]!) {
        if (isQueued[other]) continue;
        isQueued[other] = 1;
        queue.push(other);
      }
    }
  }

  /** Throws a few things about and improves what is tied with them, keeping what is no worse, until the time is over or it saves no more. */
  shake(until: number, now: () => number): void {
    let best = [...this.sequence];
    let cost = this.cost();
    const patience = 400 + 8 * this.part.nodes;
    const least = this.part.weight.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);
    for (let idle = 0; idle < patience && now() < until && cost > least; idle++) {
      const moved: number[] = [];
      const kicks = 1 + Math.floor(this.random() * 4);
      for (let kick = 0; kick < kicks; kick++) {
        const node = Math.floor(this.random() * this.part.nodes);
        // A thing that is tied with one that stands wrong is worth more than any other.
        const near = this.near[node]![Math.floor(this.random() * this.near[node]!.length)]!;
        this.move(node, this.random() < 0.5 ? this.place[near.other]! : Math.floor(this.random() * this.part.nodes));
        moved.push(node, near.other);
        for (const { other } of this.near[node]!) moved.push(other);
      }
      this.improve(moved);
      const next = this.cost();
      if (next > cost) {
        this.sequence = [...best];
        this.number();
        continue;
      }
      if (next < cost) idle = 0;
      best = [...this.sequence];
      cost = next;
    }
    this.sequence = best;
    this.number();
  }

  /** Begins with another order. */
  set(order: ArrayLike<number>): void {
    this.sequence = Array.from(order);
    this.number();
  }

  private number(): void {
    this.sequence.forEach((node, at) => {
      this.place[node] = at;
    });
  }

  private move(node: number, to: number): void {
    const from = this.place[node]!;
    const { sequence, place } = this;
    const step = to > from ? 1 : -1;
    for (let at = from; at !== to; at += step) {
      sequence[at] = sequence[at + step]!;
      place[sequence[at]!] = at;
    }
    sequence[to] = node;
    place[node] = to;
  }

  private cost(): number {
    const { from, to, weight } = this.part;
    let cost = 0;
    for (let edge = 0; edge < from.length; edge++) if (this.place[from[edge]!]! < this.place[to[edge]!]!) cost += weight[edge]!;
    return cost;
  }

  /** Where a thing causes the least feedback; where it stands, if that is as good. */
  private bestPlace(node: number): number {
    const { place } = this;
    const near = this.near[node]!.map(({ other, weight, depends }) => ({ at: place[other]!, weight: depends ? -weight : weight })).sort((a, b) => a.at - b.at);
    // Cost at the very front, less what all places share: everything it depends on stands behind it.
    const own = place[node]!;
    let cost = 0;
    let [least, best, here] = [0, 0, 0];
    near.forEach(({ at, weight }, index) => {
      // Behind that one: a dependency on it is no feedback any more, one of it on this is.
      if (at < own) here += weight;
      cost += weight;
      // Two that depend on each other are passed at once.
      if (near[index + 1]?.at === at || cost >= least) return;
      least = cost;
      best = at < own ? at + 1 : at;
    });
    return least < here - 1e-9 ? best : own;
  }

  /** Sources and sinks are taken off in turn; of what is left, what has most to give (Eades, Lin and Smyth 1993). */
  private begin(): number[] {
    const { nodes } = this.part;
    const [depends, carries] = [new Float64Array(nodes), new Float64Array(nodes)];
    const left = new Uint8Array(nodes).fill(1);
    this.near.forEach((list, node) => {
      for (const one of list)
        if (one.depends) depends[node]! += one.weight;
        else carries[node]! += one.weight;
    });
    const [front, back]: [number[], number[]] = [[], []];
    const take = (node: number, side: number[]) => {
      left[node] = 0;
      side.push(node);
      for (const { other, weight, depends: isBase } of this.near[node]!) {
        if (isBase) carries[other]! -= weight;
        else depends[other]! -= weight;
        if (left[other]) stack.push(other);
      }
    };
    const stack: number[] = [...Array(nodes).keys()].reverse();
    for (let taken = 0; taken < nodes; ) {
      const node = stack.pop();
      if (node !== undefined) {
        if (!left[node]) continue;
        if (depends[node]! <= 1e-9) take(node, front);
        else if (carries[node]! <= 1e-9) take(node, back);
        else continue;
        taken++;
        continue;
      }
      let most = -1;
      for (let one = 0; one < nodes; one++) if (left[one] && (most < 0 || carries[one]! - depends[one]! > carries[most]! - depends[most]!)) most = one;
      take(most, front);
      taken++;
    }
    return [...front, ...back.reverse()];
  }
}
