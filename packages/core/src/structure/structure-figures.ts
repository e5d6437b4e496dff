import type { Dependencies } from './dependencies.js';
import { numberGroups, type Ties } from './grouping.js';
import { buildDirectedRows, findStrongComponents } from './strong-components.js';

/** What a grouping makes of dependencies. */
export interface StructureFigures {
  groups: number;
  /** Dependencies within a group, and across. */
  within: number;
  across: number;
  /** Cycles of groups, and groups in them. */
  cycles: number;
  inCycles: number;
  /** Share of the pairs of groups of which one reaches the other by dependencies: how far a change may spread. */
  propagation: number;
}

export function readStructure({ from, to, weight }: Dependencies, grouping: ArrayLike<number>): StructureFigures {
  const { group, count } = numberGroups(grouping);
  const pairs = new Set<number>();
  let [within, across] = [0, 0];
  for (let edge = 0; edge < from.length; edge++) {
    const [a, b] = [group[from[edge]!]!, group[to[edge]!]!];
    if (a === b) within += weight[edge]!;
    else {
      across += weight[edge]!;
      pairs.add(a * count + b);
    }
  }
  const [starts, ends] = [Int32Array.from(pairs, (pair) => Math.floor(pair / count)), Int32Array.from(pairs, (pair) => pair % count)];
  const { of, count: components } = findStrongComponents(count, buildDirectedRows(count, starts, ends));
  const size = new Int32Array(components);
  for (const component of of) size[component]!++;
  const cyclic = size.filter((one) => one > 1);
  return {
    ...{ groups: count, within, across, cycles: cyclic.length, inCycles: cyclic.reduce((sum, one) => sum + one, 0) },
    propagation: propagationCost(count, starts, ends),
  };
}

/** Share of all ordered pairs of different nodes of which the first reaches the second; 0 for fewer than two. */
export function propagationCost(nodes: number, from: ArrayLike<number>, to: ArrayLike<number>): number {
  if (nodes < 2) return 0;
  const rows = buildDirectedRows(nodes, from, to);
  const { of, count } = findStrongComponents(nodes, rows);
  const size = new Int32Array(count);
  for (const component of of) size[component]!++;
  const words = (count + 31) >>> 5;
  // What a component reaches, as bits: whatever it leads to has a lower number, and is known before it.
  const reach = new Uint32Array(count * words);
  const members: number[][] = Array.from({ length: count }, () => []);
  of.forEach((component, node) => members[component]!.push(node));
  let pairs = 0;
  for (let component = 0; component < count; component++) {
    const base = component * words;
    reach[base + (component >>> 5)]! |= 1 << (component & 31);
    for (const node of members[component]!)
      for (let at = rows.start[node]!; at < rows.start[node + 1]!; at++) {
        const other = of[rows.target[at]!]! * words;
        for (let word = 0; word < words; word++) reach[base + word]! |= reach[other + word]!;
      }
    let reached = 0;
    for (let word = 0; word < words; word++)
      for (let bits = reach[base + word]!; bits !== 0; bits &= bits - 1) reached += size[(word << 5) + (31 - Math.clz32(bits & -bits))]!;
    pairs += size[component]! * (reached - 1);
  }
  return pairs / (nodes * (nodes - 1));
}

/** Things tied with so many others that they belong to none of them: buses and shared services. */
const SHARED_SHARE = 0.25;
const SHARED_LEAST = 8;
export function findShared({ nodes, a, b }: Pick<Ties, 'nodes' | 'a' | 'b'>): number[] {
  const others = new Int32Array(nodes);
  for (let tie = 0; tie < a.length; tie++) {
    others[a[tie]!]!++;
    others[b[tie]!]!++;
  }
  const least = Math.max(SHARED_LEAST, SHARED_SHARE * (nodes - 1));
  return [...others.keys()].filter((node) => others[node]! >= least);
}

/** Which group of today each proposed one goes on from, and what is to move. */
export interface Alignment {
  /** Of each proposed group, the group of today that most of it came from and that no other goes on from; -1 for a new one. */
  today: Int32Array;
  /** Things whose group of today is not the one that theirs goes on from. */
  moves: number[];
}

export function alignGroups(todays: ArrayLike<number>, proposed: ArrayLike<number>, count: number): Alignment {
  const shared = new Map<string, { today: number; group: number; both: number }>();
  for (let thing = 0; thing < proposed.length; thing++) {
    const key = `${todays[thing]} ${proposed[thing]}`;
    const known = shared.get(key);
    if (known) known.both++;
    else shared.set(key, { today: todays[thing]!, group: proposed[thing]!, both: 1 });
  }
  const today = new Int32Array(count).fill(-1);
  const taken = new Set<number>();
  for (const one of [...shared.values()].sort((a, b) => b.both - a.both || a.group - b.group || a.today - b.today)) {
    if (today[one.group] !== -1 || taken.has(one.today)) continue;
    today[one.group] = one.today;
    taken.add(one.today);
  }
  const moves: number[] = [];
  for (let thing = 0; thing < proposed.length; thing++) if (today[proposed[thing]!] !== todays[thing]) moves.push(thing);
  return { today, moves };
}
