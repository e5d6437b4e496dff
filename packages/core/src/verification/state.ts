import type { TraceGraph } from '../trace/graph.js';

/** In the order in which they are tried for a requirement; the first that holds is its state. */
export const verificationStates = ['waived', 'failing', 'stale', 'partly', 'verified', 'planned', 'unplanned', 'notApplicable'] as const;
export type VerificationState = (typeof verificationStates)[number];

export const outcomes = ['passed', 'failed', 'broken', 'skipped'] as const;
export type Outcome = (typeof outcomes)[number];

/** Latest result of a test case in the runs looked at. */
export interface LatestResult {
  outcome: Outcome;
  /** Sequence number of the project when the result was taken in: what it vouches for is the project as of then. */
  seq: number;
}

export interface Evidence {
  /** 1 for requirements that need verification. */
  subject: Uint8Array;
  waived: Uint8Array;
  present: Uint8Array;
  /** 1 for test cases. */
  test: Uint8Array;
  /** Sequence number of the last change of an item's meaning. */
  meaningSeq: Uint32Array | Float64Array;
  latest: (node: number) => LatestResult | undefined;
  verifies: number;
  /** Link kind by which requirements derive from others; their tests count too when given. */
  derives?: number;
}

export interface VerificationReading {
  state: VerificationState;
  /** Test cases that count for the requirement. */
  tests: number[];
  passed: number;
  failed: number;
  notRun: number;
  stale: number;
}

/**
 * Verification state of one requirement from evidence: tests that verify it, and those of what derives from it.
 * A result is stale when the requirement, the test or (by being suspect) their link changed meaning after it was taken in;
 * a link made later to an unchanged test is no change of what was run.
 */
export function readVerification(graph: TraceGraph, evidence: Evidence, node: number): VerificationReading {
  const reading: VerificationReading = { state: 'notApplicable', tests: [], passed: 0, failed: 0, notRun: 0, stale: 0 };
  if (!evidence.subject[node]) return reading;
  const touched = evidence.derives === undefined ? [node] : findDerived(graph, evidence, node);
  const seen = new Seen(reading.tests);
  for (const requirement of touched) collectTests(graph, evidence, requirement, reading, seen);
  reading.state = decide(reading, evidence.waived[node] === 1);
  return reading;
}

function findDerived(graph: TraceGraph, evidence: Evidence, node: number): number[] {
  const found = [node];
  const seen = new Seen(found);
  for (let at = 0; at < found.length; at++)
    graph.forEachLink(found[at]!, 'in', (link, other) => {
      if (graph.kind[link] === evidence.derives && evidence.present[other] && !seen.has(other)) found.push(other);
    });
  return found;
}

/** What a growing list holds. Most have few: looking through them is quicker than a set for each. */
class Seen {
  private set: Set<number> | undefined;

  constructor(private readonly list: readonly number[]) {}

  has(node: number): boolean {
    const { list } = this;
    if (list.length <= FEW) return list.includes(node);
    this.set ??= new Set();
    while (this.set.size < list.length) this.set.add(list[this.set.size]!);
    return this.set.has(node);
  }
}

function collectTests(graph: TraceGraph, evidence: Evidence, requirement: number, reading: VerificationReading, seen: Seen): void {
  graph.forEachLink(requirement, 'in', (link, test) => {
    if (graph.kind[link] !== evidence.verifies || !evidence.test[test] || !evidence.present[test] || seen.has(test)) return;
    reading.tests.push(test);
    const result = evidence.latest(test);
    if (!result || result.outcome === 'skipped') {
      reading.notRun++;
      return;
    }
    if (result.outcome === 'passed') reading.passed++;
    else reading.failed++;
    const changed = Math.max(evidence.meaningSeq[requirement]!, evidence.meaningSeq[test]!);
    if (changed > result.seq || graph.isSuspect(link)) reading.stale++;
  });
}

function decide(reading: VerificationReading, waived: boolean): VerificationState {
  if (waived) return 'waived';
  if (reading.failed > 0) return 'failing';
  if (reading.stale > 0) return 'stale';
  if (reading.passed > 0 && reading.notRun > 0) return 'partly';
  if (reading.passed > 0) return 'verified';
  return reading.tests.length > 0 ? 'planned' : 'unplanned';
}

/** Longer lists get a set of their own. */
const FEW = 24;

/** From worst to best; a parent takes the worst of its own state and its children's. */
const worstFirst: VerificationState[] = ['failing', 'unplanned', 'planned', 'stale', 'partly', 'waived', 'verified'];

export type StateCounts = Record<VerificationState, number>;

export function buildStateCounts(): StateCounts {
  return { waived: 0, failing: 0, stale: 0, partly: 0, verified: 0, planned: 0, unplanned: 0, notApplicable: 0 };
}

/** The worst state that occurs among the counts; `notApplicable` when nothing applies. */
export function findWorst(counts: StateCounts): VerificationState {
  return worstFirst.find((state) => counts[state] > 0) ?? 'notApplicable';
}

/**
 * Counts per node over itself and everything below it in the outline: never an average of averages.
 * `parent[i]` is the parent's index, or -1; parents may stand anywhere in the arrays.
 */
export function rollUpStates(parent: Int32Array, states: readonly VerificationState[]): StateCounts[] {
  const counts = states.map((state) => {
    const own = buildStateCounts();
    own[state] = 1;
    return own;
  });
  const children = new Int32Array(parent.length);
  for (const p of parent) if (p >= 0) children[p]!++;
  const ready: number[] = [];
  for (let i = 0; i < parent.length; i++) if (children[i] === 0) ready.push(i);
  for (let node = ready.pop(); node !== undefined; node = ready.pop()) {
    const up = parent[node]!;
    if (up < 0) continue;
    for (const state of verificationStates) counts[up]![state] += counts[node]![state];
    if (--children[up]! === 0) ready.push(up);
  }
  return counts;
}
