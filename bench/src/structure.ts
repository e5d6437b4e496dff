import { compareGroups, describeGroups, orderByFeedback, proposeGroups, tiesOf } from '@coomb/core';
import { below, seeded } from '@coomb/core/testing';
import { coverSolver, loadSolver } from '@coomb/server';
import { medianOf, type Row, time } from './measure.js';

/** Structures of each sort that are measured; figures are their medians. */
const SEEDS = [1, 2, 3, 4, 5];

/** Groups of about the same size; of its ties each thing has so many, a share of them to anything. */
function planted(seed: number, nodes: number, groups: number, degree: number, mixing: number) {
  const random = seeded(seed);
  const truth = Int32Array.from({ length: nodes }, () => below(random, groups));
  const members: number[][] = Array.from({ length: groups }, () => []);
  truth.forEach((group, node) => members[group]!.push(node));
  const [from, to]: [number[], number[]] = [[], []];
  for (let node = 0; node < nodes; node++)
    for (let tie = 0; tie < degree / 2; tie++) {
      const own = members[truth[node]!]!;
      const other = random() < mixing ? below(random, nodes) : own[below(random, own.length)]!;
      if (other === node) continue;
      from.push(node);
      to.push(other);
    }
  return {
    truth,
    ties: tiesOf(
      nodes,
      from,
      to,
      from.map(() => 1),
    ),
  };
}

/** Things in a line that depend on what stands before, but for a share that depends on what stands after. */
function layered(seed: number, nodes: number, count: number, feedback: number) {
  const random = seeded(seed);
  const found = new Map<number, [number, number]>();
  while (found.size < count) {
    const [a, b] = [below(random, nodes), below(random, nodes)];
    if (a === b) continue;
    const [low, high] = [Math.min(a, b), Math.max(a, b)];
    const pair: [number, number] = random() < feedback ? [low, high] : [high, low];
    found.set(pair[0] * nodes + pair[1], pair);
  }
  const pairs = [...found.values()];
  return {
    nodes,
    from: Int32Array.from(pairs, ([a]) => a),
    to: Int32Array.from(pairs, ([, b]) => b),
    weight: new Float64Array(count).fill(1),
  };
}

/** How near proposed groups come to those that were planted, and orders to what is proven. */
export async function benchStructure(): Promise<Row[]> {
  const rows: Row[] = [];
  const aims = new Map([
    ['1000 0.2', 0.97],
    ['1000 0.3', 0.93],
    ['1000 0.4', 0.84],
    ['3000 0.3', 0.93],
  ]);
  for (const [nodes, groups] of [
    [1000, 30],
    [3000, 90],
  ] as const)
    for (const mixing of [0.2, 0.3, 0.4]) {
      const scores: number[] = [];
      const adjusted: number[] = [];
      const chance: number[] = [];
      const random = seeded(9);
      for (const seed of SEEDS) {
        const { truth, ties } = planted(seed, nodes, groups, 8, mixing);
        const found = proposeGroups(ties, 1);
        const score = compareGroups(found.group, truth);
        scores.push(score.normalised);
        adjusted.push(score.adjusted);
        chance.push(
          compareGroups(
            truth.map(() => below(random, groups)),
            truth,
          ).normalised,
        );
        if (describeGroups(ties, found.group) !== found.bits) throw new Error('The description of the groups is another than was said');
      }
      const { ties } = planted(1, nodes, groups, 8, mixing);
      const size = `${nodes.toLocaleString('en')} things, ${groups} groups, mixing ${mixing}`;
      const aim = aims.get(`${nodes} ${mixing}`);
      rows.push(
        {
          ...{ what: 'groups: mutual information with the planted ones', size, runs: SEEDS.length, median: 0 },
          shown: `${medianOf(scores).toFixed(3)} (adjusted ${medianOf(adjusted).toFixed(3)})`,
          compared: `by chance ${medianOf(chance).toFixed(3)}`,
          ...(aim && { goal: `≥ ${aim}` }),
        },
        { what: 'groups: proposed', size, runs: 5, median: await time(5, () => proposeGroups(ties, 1)), goal: nodes === 1000 ? '≤ 250 ms' : '≤ 600 ms' },
      );
    }
  const solve = coverSolver(await loadSolver());
  for (const count of [1500, 2000, 3000, 4000]) {
    const all = layered(1, 1000, count, 0.05);
    const options = { seed: 1, seconds: 10, now: () => performance.now() };
    const begin = performance.now();
    const found = orderByFeedback(all, { ...options, solve });
    const took = performance.now() - begin;
    const alone = orderByFeedback(all, options);
    const size = `1,000 things, ${count.toLocaleString('en')} dependencies, 5 % of them feedback`;
    rows.push({
      ...{ what: 'order: feedback marks left', size, runs: 1, median: 0, goal: 'proven in ≤ 1 s, else with its bound' },
      shown: `${found.weight}, ${found.bound === found.weight ? 'proven' : `at least ${found.bound}`}, ${(took / 1000).toFixed(1)} s`,
      compared: `without the solver ${alone.weight}; planted ${all.from.filter((node, at) => node < all.to[at]!).length}`,
    });
  }
  return rows;
}
