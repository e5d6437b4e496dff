import { describe, expect, it } from 'vitest';
import { toColumns } from '../testing/random.js';
import { TraceGraph } from '../trace/graph.js';
import { buildStateCounts, type Evidence, findWorst, type LatestResult, readVerification, rollUpStates, type VerificationState } from './state.js';

const VERIFIES = 0;
const DERIVES = 1;

interface Scene {
  /** Items: `r` requirement, `t` test. */
  items: string;
  links: [from: number, to: number, kind?: number, suspect?: boolean][];
  results?: Record<number, LatestResult>;
  meaning?: Record<number, number>;
  waived?: number[];
  gone?: number[];
  derives?: boolean;
}

function stateOf({ items, links, results = {}, meaning = {}, waived = [], gone = [], derives = true }: Scene, node = 0) {
  const count = items.length;
  const mark = (is: (node: number) => boolean) => Uint8Array.from({ length: count }, (_, index) => (is(index) ? 1 : 0));
  const graph = TraceGraph.build(
    toColumns(
      count,
      links.map(([from, to, kind = VERIFIES, suspect = false]) => ({ from, to, kind, suspect })),
    ),
  );
  const evidence: Evidence = {
    subject: mark((index) => items[index] === 'r'),
    test: mark((index) => items[index] === 't'),
    waived: mark((index) => waived.includes(index)),
    present: mark((index) => !gone.includes(index)),
    meaningSeq: Uint32Array.from({ length: count }, (_, index) => meaning[index] ?? 1),
    latest: (index) => results[index],
    verifies: VERIFIES,
    ...(derives && { derives: DERIVES }),
  };
  return readVerification(graph, evidence, node);
}

const passed: LatestResult = { outcome: 'passed', seq: 5 };
const failed: LatestResult = { outcome: 'failed', seq: 5 };

describe('readVerification', () => {
  const table: [VerificationState, string, Scene][] = [
    ['notApplicable', 'what needs none', { items: 'x', links: [] }],
    ['unplanned', 'no test', { items: 'r', links: [] }],
    ['planned', 'tests without result', { items: 'rt', links: [[1, 0]] }],
    ['planned', 'tests skipped only', { items: 'rt', links: [[1, 0]], results: { 1: { outcome: 'skipped', seq: 5 } } }],
    [
      'verified',
      'all passed and fresh',
      {
        items: 'rtt',
        links: [
          [1, 0],
          [2, 0],
        ],
        results: { 1: passed, 2: passed },
      },
    ],
    [
      'partly',
      'one passed, one not run',
      {
        items: 'rtt',
        links: [
          [1, 0],
          [2, 0],
        ],
        results: { 1: passed },
      },
    ],
    [
      'failing',
      'one failed among passed ones',
      {
        items: 'rtt',
        links: [
          [1, 0],
          [2, 0],
        ],
        results: { 1: passed, 2: failed },
      },
    ],
    ['failing', 'one broke', { items: 'rt', links: [[1, 0]], results: { 1: { outcome: 'broken', seq: 5 } } }],
    ['stale', 'requirement reworded after the result', { items: 'rt', links: [[1, 0]], results: { 1: passed }, meaning: { 0: 6 } }],
    ['stale', 'test reworded after the result', { items: 'rt', links: [[1, 0]], results: { 1: passed }, meaning: { 1: 9 } }],
    ['stale', 'suspect link', { items: 'rt', links: [[1, 0, VERIFIES, true]], results: { 1: passed } }],
    ['verified', 'reworded in the very step of the result', { items: 'rt', links: [[1, 0]], results: { 1: passed }, meaning: { 0: 5 } }],
    ['failing', 'failing wins over stale', { items: 'rt', links: [[1, 0]], results: { 1: failed }, meaning: { 0: 9 } }],
    [
      'stale',
      'stale wins over partly',
      {
        items: 'rtt',
        links: [
          [1, 0],
          [2, 0],
        ],
        results: { 1: passed },
        meaning: { 0: 9 },
      },
    ],
    ['waived', 'a waiver wins over all', { items: 'rt', links: [[1, 0]], results: { 1: failed }, waived: [0] }],
    ['unplanned', 'its only test is withdrawn', { items: 'rt', links: [[1, 0]], results: { 1: passed }, gone: [1] }],
    [
      'verified',
      'tested through what derives from it',
      {
        items: 'rrt',
        links: [
          [1, 0, DERIVES],
          [2, 1],
        ],
        results: { 2: passed },
      },
    ],
    [
      'unplanned',
      'the rule does not look at what derives',
      {
        items: 'rrt',
        links: [
          [1, 0, DERIVES],
          [2, 1],
        ],
        results: { 2: passed },
        derives: false,
      },
    ],
    [
      'verified',
      'derivation in a circle',
      {
        items: 'rrt',
        links: [
          [1, 0, DERIVES],
          [0, 1, DERIVES],
          [2, 1],
        ],
        results: { 2: passed },
      },
    ],
  ];

  it.each(table)('says %s: %s', (state, _, scene) => {
    expect(stateOf(scene).state).toBe(state);
  });

  it('counts a test once that verifies two derived requirements', () => {
    const reading = stateOf({
      items: 'rrrt',
      links: [
        [1, 0, DERIVES],
        [2, 0, DERIVES],
        [3, 1],
        [3, 2],
      ],
      results: { 3: passed },
    });
    expect(reading).toMatchObject({ tests: [3], passed: 1, failed: 0, notRun: 0, stale: 0 });
  });
});

describe('rolling states up', () => {
  it('counts leaves under every parent, wherever parents stand', () => {
    const counts = rollUpStates(Int32Array.from([2, 2, 3, -1]), ['verified', 'failing', 'notApplicable', 'notApplicable']);
    expect(counts[3]).toMatchObject({ verified: 1, failing: 1, notApplicable: 2 });
    expect(counts[0]).toMatchObject({ verified: 1, failing: 0 });
  });

  it('agrees with counting each subtree by itself', () => {
    const parent = Int32Array.from({ length: 60 }, (_, node) => (node === 0 ? -1 : Math.floor((node * 7919) % node)));
    const states = Array.from(parent, (_, node): VerificationState => (node % 3 === 0 ? 'verified' : node % 5 === 0 ? 'failing' : 'planned'));
    const isUnder = (node: number, top: number): boolean => node === top || (parent[node]! >= 0 && isUnder(parent[node]!, top));
    const counts = rollUpStates(parent, states);
    for (let top = 0; top < 60; top++) {
      const slow = buildStateCounts();
      states.forEach((state, node) => {
        if (isUnder(node, top)) slow[state]++;
      });
      expect(counts[top]).toEqual(slow);
    }
  });

  it('takes the worst that occurs', () => {
    const worst = (states: VerificationState[]) => {
      const counts = buildStateCounts();
      for (const state of states) counts[state]++;
      return findWorst(counts);
    };
    expect(worst(['verified', 'failing', 'planned'])).toBe('failing');
    expect(worst(['verified', 'partly', 'unplanned'])).toBe('unplanned');
    expect(worst(['verified', 'waived'])).toBe('waived');
    expect(worst(['notApplicable'])).toBe('notApplicable');
  });
});
