import { describe, expect, it } from 'vitest';
import { below, seeded } from '../testing/random.js';
import type { Dependencies } from './dependencies.js';
import { type Cover, type CoverSolver, orderByFeedback } from './feedback-order.js';
import { compareGroups, describeGroups, numberGroups, tiesOf } from './grouping.js';
import { proposeGroups } from './leiden.js';
import { alignGroups, findShared, propagationCost, readStructure } from './structure-figures.js';

const dependencies = (nodes: number, edges: readonly (readonly [number, number, number?])[]): Dependencies => ({
  nodes,
  from: Int32Array.from(edges, ([from]) => from),
  to: Int32Array.from(edges, ([, to]) => to),
  weight: Float64Array.from(edges, ([, , weight = 1]) => weight),
});

/** The cheapest cover by looking at all of them: for small questions only. */
const tryAll: CoverSolver = (weight, cuts) => {
  const edges = [...new Set(cuts.flatMap((cut) => [...cut]))];
  let best: Cover | undefined;
  for (let bits = 0; bits < 2 ** edges.length; bits++) {
    const chosen = edges.filter((_, at) => bits & (1 << at));
    const cost = chosen.reduce((sum, edge) => sum + weight[edge]!, 0);
    if ((!best || cost < best.bound) && cuts.every((cut) => cut.some((edge) => chosen.includes(edge))))
      best = { chosen, share: chosen.map(() => 1), bound: cost };
  }
  return best;
};
const options = { seed: 1, seconds: 5, now: () => performance.now() };

function feedbackOf({ from, to, weight }: Dependencies, order: ArrayLike<number>): number {
  const place = new Map(Array.from(order, (node, at) => [node, at]));
  return from.reduce((sum, node, edge) => sum + (place.get(node)! < place.get(to[edge]!)! ? weight[edge]! : 0), 0);
}

function leastFeedback(all: Dependencies): number {
  const orders = (left: number[]): number[][] =>
    left.length === 0 ? [[]] : left.flatMap((one) => orders(left.filter((x) => x !== one)).map((rest) => [one, ...rest]));
  return Math.min(...orders([...Array(all.nodes).keys()]).map((order) => feedbackOf(all, order)));
}

describe('orderByFeedback', () => {
  it('puts what is depended on first, and else keeps the order given', () => {
    const found = orderByFeedback(
      dependencies(5, [
        [0, 4],
        [1, 0],
      ]),
      options,
    );
    expect([...found.order]).toEqual([2, 3, 4, 0, 1]);
    expect(found).toMatchObject({ weight: 0, bound: 0, blocks: [] });
  });

  it('shows a cycle as a block with what breaks it', () => {
    const all = dependencies(4, [
      [0, 1],
      [1, 2],
      [2, 0],
      [3, 1],
    ]);
    const found = orderByFeedback(all, options);
    expect(found.blocks).toMatchObject([{ start: 0, size: 3, weight: 1, bound: 1 }]);
    expect(found.order[3]).toBe(3);
    expect(feedbackOf(all, found.order)).toBe(1);
    expect(found.feedback).toHaveLength(1);
  });

  it('breaks a cycle where that costs least', () => {
    const found = orderByFeedback(
      dependencies(3, [
        [0, 1, 9],
        [1, 2, 2],
        [2, 0, 9],
      ]),
      options,
    );
    expect([found.weight, found.feedback]).toEqual([2, [1]]);
  });

  it.each([1, 2, 3, 4, 5, 6, 7, 8])('finds and proves the least, as looking at all orders does (seed %i)', (seed) => {
    const random = seeded(seed);
    const pairs = new Map<string, [number, number, number]>();
    for (let i = 0; i < 12; i++) {
      const [a, b] = [below(random, 6), below(random, 6)];
      if (a !== b) pairs.set(`${a} ${b}`, [a, b, 1 + below(random, 3)]);
    }
    const all = dependencies(6, [...pairs.values()]);
    const found = orderByFeedback(all, { ...options, solve: tryAll });
    const least = leastFeedback(all);
    expect([found.weight, found.bound, feedbackOf(all, found.order)]).toEqual([least, least, least]);
    expect([...found.order].sort()).toEqual([0, 1, 2, 3, 4, 5]);
    const alone = orderByFeedback(all, options);
    expect(alone.weight).toBeGreaterThanOrEqual(least);
    expect(alone.bound).toBeLessThanOrEqual(least);
  });

  it('takes nothing for proven that only whole weights would prove', () => {
    // Two cycles that share nothing, the cheapest of each a fraction: what is least lies between whole numbers.
    const all = dependencies(6, [
      [0, 1, 0.6],
      [1, 2, 2],
      [2, 0, 2],
      [3, 4, 0.7],
      [4, 5, 2],
      [5, 3, 2],
    ]);
    const half: CoverSolver = (weight, cuts, limits) => {
      const cover = tryAll(weight, cuts, limits);
      return cover && { ...cover, bound: cover.bound * 0.9 };
    };
    const found = orderByFeedback(all, { ...options, solve: tryAll });
    expect([found.weight, found.bound]).toEqual([expect.closeTo(1.3), found.weight]);
    const unsure = orderByFeedback(
      dependencies(3, [
        [0, 1, 0.6],
        [1, 2, 0.75],
        [2, 0, 0.75],
        [1, 0, 0.6],
      ]),
      { ...options, solve: half },
    );
    // Sums of these weights go in steps of 0.15: what is at least 0.54 is at least 0.6.
    expect([unsure.weight, unsure.bound]).toEqual([0.6, 0.6]);
  });

  it('knows from parts of edges how good an order is at best', () => {
    // Three cycles of two that each share a thing with the next: half of one edge of each is never less than whole edges.
    const all = dependencies(4, [
      [0, 1],
      [1, 0],
      [1, 2],
      [2, 1],
      [2, 0],
      [0, 2],
    ]);
    const asked: boolean[] = [];
    const found = orderByFeedback(all, {
      ...options,
      solve: (weight, cuts, limits) => {
        asked.push(limits.inParts ?? false);
        return tryAll(weight, cuts, limits);
      },
    });
    expect(found).toMatchObject({ weight: 3, bound: 3 });
    expect(asked[0]).toBe(true);
  });

  it('gives what it found, with its bound, where no cover is found in time', () => {
    const all = dependencies(6, [
      [0, 1],
      [1, 2],
      [2, 0],
      [2, 3],
      [3, 4],
      [4, 2],
      [4, 5],
      [5, 4],
    ]);
    const found = orderByFeedback(all, { ...options, solve: () => undefined });
    expect(found.bound).toBeLessThanOrEqual(found.weight);
    expect(feedbackOf(all, found.order)).toBe(found.weight);
  });
});

/** Groups of some size, tied within more than between. */
function planted(seed: number, groups: number, size: number, mixing: number) {
  const random = seeded(seed);
  const nodes = groups * size;
  const truth = Int32Array.from({ length: nodes }, (_, node) => node % groups);
  const ends = Array.from({ length: nodes * 5 }, (_, at): [number, number] => {
    const node = at % nodes;
    return [node, random() < mixing ? below(random, nodes) : truth[node]! + groups * below(random, size)];
  });
  return {
    truth,
    ties: tiesOf(
      nodes,
      ends.map(([a]) => a),
      ends.map(([, b]) => b),
      ends.map(() => 1),
    ),
  };
}

describe('proposeGroups', () => {
  it.each([1, 2, 3])('finds groups that were planted (seed %i)', (seed) => {
    const { truth, ties } = planted(seed, 12, 15, 0.2);
    const found = proposeGroups(ties, 1);
    const { normalised, adjusted } = compareGroups(found.group, truth);
    expect(normalised).toBeGreaterThan(0.95);
    expect(adjusted).toBeGreaterThan(0.93);
    expect(found.bits).toBeLessThan(describeGroups(ties, new Int32Array(truth.length)));
  });

  it('finds the same from the same seed', () => {
    const { ties } = planted(4, 10, 10, 0.4);
    expect(proposeGroups(ties, 7)).toEqual(proposeGroups(ties, 7));
  });

  it('says where the ties do not tell its groups apart', () => {
    const random = seeded(1);
    const ends = Array.from({ length: 400 }, () => [below(random, 60), below(random, 60)] as const);
    const ties = tiesOf(
      60,
      ends.map(([a]) => a),
      ends.map(([, b]) => b),
      ends.map(() => 1),
    );
    expect(proposeGroups(ties, 1).isTelling).toBe(false);
    expect(proposeGroups(planted(1, 12, 15, 0.2).ties, 1).isTelling).toBe(true);
    expect(proposeGroups(tiesOf(3, [], [], []), 1)).toMatchObject({ count: 1 });
    expect(proposeGroups(tiesOf(0, [], [], []), 1)).toMatchObject({ count: 0 });
  });
});

describe('compareGroups', () => {
  it('is 1 for the same groups by other names, and about 0 by chance', () => {
    expect(compareGroups([0, 0, 1, 1], [5, 5, 3, 3])).toEqual({ normalised: 1, adjusted: 1 });
    const random = seeded(2);
    const chance = () => Array.from({ length: 600 }, () => below(random, 30));
    const { normalised, adjusted } = compareGroups(chance(), chance());
    expect(normalised).toBeGreaterThan(0.1);
    expect(Math.abs(adjusted)).toBeLessThan(0.05);
    expect(compareGroups([0, 0], [0, 0])).toEqual({ normalised: 1, adjusted: 1 });
  });
});

describe('figures of a structure', () => {
  const all = dependencies(6, [
    [0, 1, 2],
    [1, 2],
    [2, 3],
    [3, 4],
    [4, 2],
    [5, 0],
  ]);

  it('count what goes across groups, cycles of groups and how far a change may spread', () => {
    expect(readStructure(all, [0, 0, 1, 1, 1, 2])).toEqual({ groups: 3, within: 5, across: 2, cycles: 0, inCycles: 0, propagation: 0.5 });
    expect(readStructure(all, [0, 1, 0, 1, 2, 2])).toMatchObject({ groups: 3, cycles: 1, inCycles: 3, propagation: 1 });
  });

  it('reckon reach as looking at every pair does', () => {
    const random = seeded(3);
    for (let turn = 0; turn < 20; turn++) {
      const edges = Array.from({ length: 50 }, () => [below(random, 40), below(random, 40)] as const);
      const reach = (start: number) => {
        const seen = new Set([start]);
        for (const node of seen) for (const [a, b] of edges) if (a === node) seen.add(b);
        return seen.size - 1;
      };
      const pairs = Array.from({ length: 40 }, (_, node) => reach(node)).reduce((sum, one) => sum + one, 0);
      expect(
        propagationCost(
          40,
          edges.map(([a]) => a),
          edges.map(([, b]) => b),
        ),
      ).toBeCloseTo(pairs / (40 * 39), 12);
    }
  });

  it('set apart what is tied with very many', () => {
    const ends = Array.from({ length: 20 }, (_, node) => [0, node + 1] as const);
    expect(
      findShared(
        tiesOf(
          21,
          ends.map(([a]) => a),
          ends.map(([, b]) => b),
          ends.map(() => 1),
        ),
      ),
    ).toEqual([0]);
    expect(findShared(tiesOf(4, [0, 0, 0], [1, 2, 3], [1, 1, 1]))).toEqual([]);
  });

  it('say which of today’s groups goes on as which, and what is to move', () => {
    const today = [7, 7, 7, 8, 8, 9];
    const { group, count } = numberGroups([1, 1, 2, 2, 2, 3]);
    const { today: from, moves } = alignGroups(today, group, count);
    expect([[...from], moves]).toEqual([[7, 8, 9], [2]]);
    expect(alignGroups([1, 1, 1, 1], [0, 0, 0, 1], 2)).toEqual({ today: Int32Array.from([1, -1]), moves: [3] });
  });
});
