/** Sums for each of many, of which few are more than nothing: made once, and begun anew at once. */
export class Sums {
  readonly value: Float32Array;
  /** The round in which each was touched last. */
  readonly mark: Uint32Array;
  /** What was added to in this round, in the order in which it was first; `count` of them. */
  readonly list: Int32Array;
  round = 0;
  count = 0;

  constructor(size: number) {
    this.value = new Float32Array(size);
    this.mark = new Uint32Array(size);
    this.list = new Int32Array(size);
  }

  begin(): void {
    this.round++;
    this.count = 0;
  }

  /** Keeps the larger of what is there and `value`; says whether that is the new one. */
  raise(index: number, value: number): boolean {
    if (this.mark[index] !== this.round) {
      this.mark[index] = this.round;
      this.list[this.count++] = index;
    } else if (value <= this.value[index]!) return false;
    this.value[index] = value;
    return true;
  }

  add(index: number, value: number): void {
    if (this.mark[index] !== this.round) {
      this.mark[index] = this.round;
      this.list[this.count++] = index;
      this.value[index] = value;
    } else this.value[index]! += value;
  }

  of(index: number): number {
    return this.mark[index] === this.round ? this.value[index]! : 0;
  }
}

/** The `most` of the first `count` indexes with the largest values, in any order; of equal ones those of lower index. */
export function largest(indexes: Int32Array, count: number, values: Float32Array, most: number): Int32Array {
  if (count <= most) return indexes.slice(0, count);
  // A heap with the smallest on top.
  const heap = indexes.slice(0, most);
  for (let at = (most >> 1) - 1; at >= 0; at--) sink(heap, values, at);
  let bound = values[heap[0]!]!;
  for (let at = most; at < count; at++) {
    const index = indexes[at]!;
    const value = values[index]!;
    if (value < bound || (value === bound && index > heap[0]!)) continue;
    heap[0] = index;
    sink(heap, values, 0);
    bound = values[heap[0]!]!;
  }
  return heap;
}

function sink(heap: Int32Array, values: Float32Array, from: number): void {
  const moved = heap[from]!;
  const value = values[moved]!;
  let at = from;
  for (let child = 2 * at + 1; child < heap.length; child = 2 * at + 1) {
    if (child + 1 < heap.length && isLess(heap[child + 1]!, heap[child]!, values)) child++;
    const lower = heap[child]!;
    if (values[lower]! > value || (values[lower] === value && lower < moved)) break;
    heap[at] = lower;
    at = child;
  }
  heap[at] = moved;
}

function isLess(a: number, b: number, values: Float32Array): boolean {
  return values[a]! < values[b]! || (values[a] === values[b] && a > b);
}
