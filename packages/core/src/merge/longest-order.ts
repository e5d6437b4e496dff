/**
 * Marks the entries that need not move for the rest to fall into ascending order: a longest strictly increasing subsequence
 * (patience sorting, n log n). What is not marked was moved; no other choice moves fewer.
 */
export function findSteady(order: readonly number[]): boolean[] {
  const ends: number[] = [];
  const before = new Int32Array(order.length).fill(-1);
  order.forEach((value, index) => {
    let low = 0;
    let high = ends.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (order[ends[middle]!]! < value) low = middle + 1;
      else high = middle;
    }
    if (low > 0) before[index] = ends[low - 1]!;
    ends[low] = index;
  });
  const steady = new Array<boolean>(order.length).fill(false);
  for (let index = ends.at(-1) ?? -1; index >= 0; index = before[index]!) steady[index] = true;
  return steady;
}
