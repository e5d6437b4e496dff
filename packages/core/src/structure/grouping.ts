/** What stands between things, whichever way it points: edge e joins `a[e]` with `b[e]`, another than it, `weight[e]` times; each pair once. */
export interface Ties {
  nodes: number;
  a: Int32Array;
  b: Int32Array;
  weight: Float64Array;
}

/** Dependencies as ties: both ways between a pair add up. */
export function tiesOf(nodes: number, from: ArrayLike<number>, to: ArrayLike<number>, weight: ArrayLike<number>): Ties {
  const found = new Map<number, number>();
  for (let edge = 0; edge < from.length; edge++) {
    if (from[edge] === to[edge]) continue;
    const key = Math.min(from[edge]!, to[edge]!) * nodes + Math.max(from[edge]!, to[edge]!);
    found.set(key, (found.get(key) ?? 0) + weight[edge]!);
  }
  const keys = [...found.keys()].sort((a, b) => a - b);
  return {
    nodes,
    a: Int32Array.from(keys, (key) => Math.floor(key / nodes)),
    b: Int32Array.from(keys, (key) => key % nodes),
    weight: Float64Array.from(keys, (key) => found.get(key)!),
  };
}

/** Groups numbered from 0 in the order of their first thing. */
export function numberGroups(group: ArrayLike<number>): { group: Int32Array; count: number } {
  const numbers = new Map<number, number>();
  const numbered = Int32Array.from(group, (one) => {
    let number = numbers.get(one);
    if (number === undefined) numbers.set(one, (number = numbers.size));
    return number;
  });
  return { group: numbered, count: numbers.size };
}

/** ln of the number of ways to choose `chosen` of `from`. */
const lnChoose = (from: number, chosen: number): number =>
  chosen <= 0 || chosen >= from ? 0 : lnFactorial(from) - lnFactorial(chosen) - lnFactorial(from - chosen);

function lnFactorial(n: number): number {
  if (n < 2) return 0;
  // Stirling's series: exact to ten places from 10 on, and summed below that.
  if (n < 10) {
    let sum = 0;
    for (let i = 2; i <= n; i++) sum += Math.log(i);
    return sum;
  }
  return n * Math.log(n) - n + 0.5 * Math.log(2 * Math.PI * n) + 1 / (12 * n) - 1 / (360 * n ** 3);
}

/**
 * Description length of a grouping, in bits: what it takes to say which thing is in which group, how many ties each group has within and how many there are
 * between groups, and then which pairs these are. The fewer bits, the more of the ties the grouping explains; a grouping that explains nothing costs more
 * than none. Weights are not counted: a pair is tied or not.
 */
export function describeGroups({ nodes, a, b }: Ties, grouping: ArrayLike<number>): number {
  if (nodes === 0) return 0;
  const { group, count } = numberGroups(grouping);
  const size = new Float64Array(count);
  const within = new Float64Array(count);
  for (const one of group) size[one]!++;
  let between = 0;
  for (let tie = 0; tie < a.length; tie++) {
    if (group[a[tie]!] === group[b[tie]!]) within[group[a[tie]!]!]!++;
    else between++;
  }
  let pairsWithin = 0;
  let nats = Math.log(nodes) + lnChoose(nodes - 1, count - 1) + lnFactorial(nodes);
  for (const one of size) nats -= lnFactorial(one);
  for (let one = 0; one < count; one++) {
    const pairs = (size[one]! * (size[one]! - 1)) / 2;
    pairsWithin += pairs;
    nats += lnChoose(pairs, within[one]!);
  }
  const tiesWithin = a.length - between;
  nats += Math.log(a.length + 1) + lnChoose(tiesWithin + count - 1, count - 1);
  nats += lnChoose((nodes * (nodes - 1)) / 2 - pairsWithin, between);
  return nats / Math.LN2;
}

/** How much two groupings tell of each other: 1 where they are the same; 0 where they tell nothing. Adjusted: less what chance would give. */
export function compareGroups(one: ArrayLike<number>, other: ArrayLike<number>): { normalised: number; adjusted: number } {
  const [x, y] = [numberGroups(one), numberGroups(other)];
  const n = x.group.length;
  const [sizeX, sizeY] = [new Float64Array(x.count), new Float64Array(y.count)];
  const joint = new Map<number, number>();
  for (let i = 0; i < n; i++) {
    sizeX[x.group[i]!]!++;
    sizeY[y.group[i]!]!++;
    const key = x.group[i]! * y.count + y.group[i]!;
    joint.set(key, (joint.get(key) ?? 0) + 1);
  }
  const entropy = (sizes: Float64Array) => sizes.reduce((sum, size) => sum - (size / n) * Math.log(size / n), 0);
  const [hx, hy] = [entropy(sizeX), entropy(sizeY)];
  if (hx === 0 && hy === 0) return { normalised: 1, adjusted: 1 };
  let mutual = 0;
  for (const [key, both] of joint) mutual += (both / n) * Math.log((n * both) / (sizeX[Math.floor(key / y.count)]! * sizeY[key % y.count]!));
  const expected = expectedMutual(sizeX, sizeY, n);
  const mean = (hx + hy) / 2;
  return { normalised: mutual / mean, adjusted: (mutual - expected) / (mean - expected || 1) };
}

/** Mutual information that two groupings of these sizes have by chance (Vinh, Epps and Bailey 2010). */
function expectedMutual(sizeX: Float64Array, sizeY: Float64Array, n: number): number {
  let expected = 0;
  // Groups of the same sizes are reckoned once.
  const sizes = (all: Float64Array) => [...all.reduce((map, size) => map.set(size, (map.get(size) ?? 0) + 1), new Map<number, number>())];
  for (const [a, timesA] of sizes(sizeX))
    for (const [b, timesB] of sizes(sizeY)) {
      for (let both = Math.max(1, a + b - n); both <= Math.min(a, b); both++) {
        const ln =
          lnFactorial(a) +
          lnFactorial(b) +
          lnFactorial(n - a) +
          lnFactorial(n - b) -
          lnFactorial(n) -
          lnFactorial(both) -
          lnFactorial(a - both) -
          lnFactorial(b - both) -
          lnFactorial(n - a - b + both);
        expected += timesA * timesB * (both / n) * Math.log((n * both) / (a * b)) * Math.exp(ln);
      }
    }
  return expected;
}
