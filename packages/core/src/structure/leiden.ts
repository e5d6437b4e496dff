import { seeded } from '../numbers/seeded.js';
import { describeGroups, numberGroups, type Ties } from './grouping.js';

export interface ProposedGroups {
  /** Group of each thing, from 0. */
  group: Int32Array;
  count: number;
  /** Bits that it takes to describe the ties by these groups. */
  bits: number;
  /** Whether that is less than what it takes with one group: else the ties do not tell these groups apart. */
  isTelling: boolean;
}

/** Runs whose shortest description is taken; each begins at the resolution that the groups of the one before ask for. */
const RUNS = 12;

/**
 * Proposes groups of things that are tied with each other more than with others: Leiden (Traag, Waltman and van Eck 2019) from several beginnings, at the
 * resolution that the groups themselves ask for (Newman 2016), the one with the shortest description taken. Where one group is described the shortest, the
 * best of several groups is given all the same, and told as such. The same for the same ties and seed.
 */
export function proposeGroups(ties: Ties, seed: number, onProgress?: (share: number) => void): ProposedGroups {
  const graph = graphOf(ties);
  const alone = describeGroups(ties, new Int32Array(ties.nodes));
  let best: ProposedGroups = { group: new Int32Array(ties.nodes), count: Math.min(1, ties.nodes), bits: alone, isTelling: true };
  let resolution = 1;
  for (let run = 0; run < RUNS && ties.a.length > 0; run++) {
    const { group, count } = numberGroups(runLeiden(graph, resolution, seeded(seed * 1009 + run)));
    const bits = describeGroups(ties, group);
    if (count > 1 && (best.count === 1 || bits < best.bits)) best = { group, count, bits, isTelling: bits < alone };
    const next = resolutionOf(graph, group, count);
    if (Number.isFinite(next) && next > 0) resolution = next;
    onProgress?.((run + 1) / RUNS);
  }
  return best;
}

/** Rows of ties both ways, with what a thing is tied to itself by: what was drawn together. */
interface Graph {
  nodes: number;
  start: Int32Array;
  other: Int32Array;
  weight: Float64Array;
  /** Weight of all ends at a node, twice its own. */
  strength: Float64Array;
  total: number;
}

function graphOf({ nodes, a, b, weight }: Ties): Graph {
  const start = new Int32Array(nodes + 1);
  for (let tie = 0; tie < a.length; tie++) {
    start[a[tie]! + 1]!++;
    start[b[tie]! + 1]!++;
  }
  for (let node = 0; node < nodes; node++) start[node + 1]! += start[node]!;
  const fill = start.slice();
  const graph: Graph = {
    nodes,
    start,
    other: new Int32Array(2 * a.length),
    weight: new Float64Array(2 * a.length),
    strength: new Float64Array(nodes),
    total: 0,
  };
  const put = (at: number, other: number, value: number) => {
    const place = fill[at]!++;
    graph.other[place] = other;
    graph.weight[place] = value;
    graph.strength[at]! += value;
    graph.total += value;
  };
  for (let tie = 0; tie < a.length; tie++) {
    put(a[tie]!, b[tie]!, weight[tie]!);
    put(b[tie]!, a[tie]!, weight[tie]!);
  }
  return graph;
}

/** The resolution at which modularity finds groups as likely as these: from how densely they are tied within and between. */
function resolutionOf({ start, other, weight, strength, total, nodes }: Graph, group: Int32Array, count: number): number {
  const share = new Float64Array(count);
  let within = 0;
  for (let node = 0; node < nodes; node++) {
    share[group[node]!]! += strength[node]!;
    for (let at = start[node]!; at < start[node + 1]!; at++) if (group[other[at]!] === group[node]) within += weight[at]!;
  }
  const expected = share.reduce((sum, one) => sum + one * one, 0) / total;
  const [inside, between] = [within / expected, (total - within) / (total - expected)];
  return (inside - between) / (Math.log(inside) - Math.log(between));
}

function runLeiden(whole: Graph, resolution: number, random: () => number): Int32Array {
  let graph = whole;
  /** Node of the graph that stands for each thing. */
  let at: Int32Array = Int32Array.from({ length: whole.nodes }, (_, node) => node);
  let group: Int32Array = at.slice();
  for (;;) {
    group = moveAbout(graph, group, resolution, random);
    const groups = new Set(group).size;
    if (groups === graph.nodes) break;
    const refined = numberGroups(refine(graph, group, resolution, random));
    if (refined.count === graph.nodes) break;
    const next = new Int32Array(refined.count);
    refined.group.forEach((part, node) => {
      next[part] = group[node]!;
    });
    at = at.map((node) => refined.group[node]!);
    graph = drawTogether(graph, refined.group, refined.count);
    group = numberGroups(next).group;
  }
  return at.map((node) => group[node]!);
}

/** Moves nodes to the group that gains most by them, beginning with all and going on with those next to what moved. */
function moveAbout({ nodes, start, other, weight, strength, total }: Graph, begin: Int32Array, resolution: number, random: () => number): Int32Array {
  const group = begin.slice();
  const share = new Float64Array(nodes);
  const size = new Int32Array(nodes);
  for (let node = 0; node < nodes; node++) {
    share[group[node]!]! += strength[node]!;
    size[group[node]!]!++;
  }
  const free = [...size.keys()].filter((one) => size[one] === 0);
  const queue = shuffled(nodes, random);
  const isQueued = new Uint8Array(nodes).fill(1);
  const tied = new Float64Array(nodes);
  const near: number[] = [];
  for (let head = 0; head < queue.length; head++) {
    const node = queue[head]!;
    isQueued[node] = 0;
    const own = group[node]!;
    for (let at = start[node]!; at < start[node + 1]!; at++) {
      if (other[at] === node) continue;
      const one = group[other[at]!]!;
      if (tied[one] === 0) near.push(one);
      tied[one]! += weight[at]!;
    }
    share[own]! -= strength[node]!;
    size[own]!--;
    const gain = (one: number) => tied[one]! - (resolution * strength[node]! * share[one]!) / total;
    let [best, most] = [own, gain(own)];
    for (const one of near) {
      const gained = gain(one);
      if (gained > most + 1e-12) [best, most] = [one, gained];
    }
    if (most < 0 && size[own]! > 0 && free.length > 0) best = free.pop()!;
    for (const one of near) tied[one] = 0;
    near.length = 0;
    share[best]! += strength[node]!;
    size[best]!++;
    if (size[own] === 0 && best !== own) free.push(own);
    if (best === own) continue;
    group[node] = best;
    for (let at = start[node]!; at < start[node + 1]!; at++) {
      const one = other[at]!;
      if (group[one] === best || isQueued[one]) continue;
      isQueued[one] = 1;
      queue.push(one);
    }
  }
  return group;
}

/** Parts of each group that hang together well: nodes that stand alone join a part of their own group that gains by them, the better the likelier. */
function refine({ nodes, start, other, weight, strength, total }: Graph, group: Int32Array, resolution: number, random: () => number): Int32Array {
  const part = Int32Array.from({ length: nodes }, (_, node) => node);
  const share = strength.slice();
  const size = new Int32Array(nodes).fill(1);
  const groupShare = new Float64Array(nodes);
  for (let node = 0; node < nodes; node++) groupShare[group[node]!]! += strength[node]!;
  /** Ties of each part, and of each node, to the rest of its group. */
  const outward = new Float64Array(nodes);
  for (let node = 0; node < nodes; node++)
    for (let at = start[node]!; at < start[node + 1]!; at++) if (other[at] !== node && group[other[at]!] === group[node]) outward[node]! += weight[at]!;
  const holds = (one: number, inGroup: number) => outward[one]! >= (resolution * share[one]! * (groupShare[inGroup]! - share[one]!)) / total;
  const tied = new Float64Array(nodes);
  const ownOutward = outward.slice();
  for (const node of shuffled(nodes, random)) {
    if (size[part[node]!] !== 1 || part[node] !== node || !holds(node, group[node]!)) continue;
    const near: number[] = [];
    for (let at = start[node]!; at < start[node + 1]!; at++) {
      if (other[at] === node || group[other[at]!] !== group[node]) continue;
      const one = part[other[at]!]!;
      if (tied[one] === 0) near.push(one);
      tied[one]! += weight[at]!;
    }
    const gains: number[] = [];
    const choices: number[] = [];
    let sum = 0;
    for (const one of near) {
      if (one === node || !holds(one, group[node]!)) continue;
      const gain = tied[one]! - (resolution * strength[node]! * share[one]!) / total;
      if (gain < 0) continue;
      choices.push(one);
      sum += Math.exp(Math.min(50, (gain / total) * 200));
      gains.push(sum);
    }
    if (choices.length > 0) {
      const drawn = random() * sum;
      const to = choices[gains.findIndex((gain) => drawn < gain)] ?? choices.at(-1)!;
      part[node] = to;
      size[node] = 0;
      size[to]!++;
      share[to]! += strength[node]!;
      outward[to]! += ownOutward[node]! - 2 * tied[to]!;
    }
    for (const one of near) tied[one] = 0;
  }
  return part;
}

function drawTogether({ nodes, start, other, weight }: Graph, part: Int32Array, count: number): Graph {
  const rows: Map<number, number>[] = Array.from({ length: count }, () => new Map());
  for (let node = 0; node < nodes; node++)
    for (let at = start[node]!; at < start[node + 1]!; at++) {
      const row = rows[part[node]!]!;
      const to = part[other[at]!]!;
      row.set(to, (row.get(to) ?? 0) + weight[at]!);
    }
  const begin = new Int32Array(count + 1);
  rows.forEach((row, at) => {
    begin[at + 1] = begin[at]! + row.size;
  });
  const graph: Graph = {
    ...{ nodes: count, start: begin, other: new Int32Array(begin[count]!), weight: new Float64Array(begin[count]!) },
    ...{ strength: new Float64Array(count), total: 0 },
  };
  rows.forEach((row, at) => {
    let place = begin[at]!;
    for (const [to, value] of row) {
      graph.other[place] = to;
      graph.weight[place++] = value;
      graph.strength[at]! += value;
      graph.total += value;
    }
  });
  return graph;
}

function shuffled(count: number, random: () => number): number[] {
  const order = Array.from({ length: count }, (_, i) => i);
  for (let i = count - 1; i > 0; i--) {
    const at = Math.floor(random() * (i + 1));
    [order[i], order[at]] = [order[at]!, order[i]!];
  }
  return order;
}
