import { describeGroups, findShared, type OrderOptions, orderByFeedback, proposeGroups, tiesOf } from '@coomb/core';
import { coverSolver, loadSolver } from './cover-solver.js';

interface Asked {
  nodes: number;
  from: number[];
  to: number[];
  weight: number[];
  seed: number;
}
export type StructureTask = Asked & ({ sort: 'order'; seconds: number } | { sort: 'groups' });

/** Orders or groups things on a thread of its own: the solver holds it, and hundreds of megabytes, until it is done. */
export default async function workOnStructure(task: StructureTask) {
  const begin = performance.now();
  const { nodes, seed } = task;
  const [from, to, weight] = [Int32Array.from(task.from), Int32Array.from(task.to), Float64Array.from(task.weight)];
  const seconds = () => (performance.now() - begin) / 1000;
  if (task.sort === 'order') {
    const options: OrderOptions = { seed, seconds: task.seconds, now: () => performance.now() };
    // What is in no cycle needs no solver, and no room for it.
    let found = orderByFeedback({ nodes, from, to, weight }, { ...options, seconds: Math.min(1, task.seconds / 4) });
    if (found.weight > found.bound) {
      const rest = Math.max(0.1, task.seconds - seconds());
      const solved = orderByFeedback({ nodes, from, to, weight }, { ...options, seconds: rest, solve: coverSolver(await loadSolver()) });
      found = solved.weight <= found.weight ? solved : { ...found, bound: Math.max(found.bound, solved.bound) };
    }
    return { order: [...found.order], blocks: found.blocks, weight: found.weight, bound: found.bound, seconds: seconds() };
  }
  const all = tiesOf(nodes, from, to, weight);
  const shared = findShared(all);
  const isShared = new Set(shared);
  const rest = [...Array(nodes).keys()].filter((node) => !isShared.has(node));
  const place = new Map(rest.map((node, at) => [node, at]));
  const kept = [...all.a.keys()].filter((tie) => place.has(all.a[tie]!) && place.has(all.b[tie]!));
  const ties = {
    nodes: rest.length,
    a: Int32Array.from(kept, (tie) => place.get(all.a[tie]!)!),
    b: Int32Array.from(kept, (tie) => place.get(all.b[tie]!)!),
    weight: Float64Array.from(kept, (tie) => all.weight[tie]!),
  };
  const found = proposeGroups(ties, seed);
  const group = Array.from({ length: nodes }, (_, node) => (isShared.has(node) ? -1 : found.group[place.get(node)!]!));
  return {
    group,
    count: found.count,
    bits: found.bits,
    isTelling: found.isTelling,
    bitsOfOne: describeGroups(ties, new Int32Array(rest.length)),
    shared,
    seconds: seconds(),
  };
}
