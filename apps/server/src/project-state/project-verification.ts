import {
  type Evidence,
  type LatestResult,
  readVerification,
  testKinds,
  type Scheme,
  type TraceGraph,
  type VerificationReading,
  type VerificationState,
} from '@coomb/core';
import type { LightItem } from './light-item.js';

/** Later than any change there is. */
const LATER = 0xffffffff;

/** What verification needs to know of the project around it. */
export interface VerificationGround {
  scheme: () => Scheme;
  graph: TraceGraph;
  items: readonly LightItem[];
  latest: (item: string) => LatestResult | undefined;
  /** Ids of the items with an active waiver of a rule. */
  waived: (rule: string) => ReadonlySet<string>;
}

/** Verification state of every item, kept until something changes it. */
export class ProjectVerification {
  private evidenceNow: Evidence | undefined;
  private verifiedNow: { states: VerificationState[]; tests: Uint32Array } | undefined;

  constructor(private readonly ground: VerificationGround) {}

  /** By node: of requirements from evidence, of test cases from their own latest result. */
  states(): readonly VerificationState[] {
    return this.verified().states;
  }

  /** How many tests count for each node. */
  testCounts(): Uint32Array {
    return this.verified().tests;
  }

  read(node: number): VerificationReading {
    return readVerification(this.ground.graph, this.evidence(), node);
  }

  /** Follows items that are new, or came to be or to say something else. Their states are computed anew by `refresh`. */
  followNodes(nodes: readonly number[]): void {
    if (!this.evidenceNow) return;
    const evidence = this.evidenceNow;
    const count = this.ground.items.length;
    if (evidence.subject.length < count) {
      const room = Math.ceil(count * 1.1) + 16;
      for (const column of ['subject', 'waived', 'present', 'test'] as const) {
        const larger = new Uint8Array(room);
        larger.set(evidence[column]);
        evidence[column] = larger;
      }
      const meanings = new Uint32Array(room);
      meanings.set(evidence.meaningSeq);
      evidence.meaningSeq = meanings;
    }
    const read = this.buildReader();
    for (const node of nodes) read(evidence, node);
    if (!this.verifiedNow) return;
    while (this.verifiedNow.states.length < count) this.verifiedNow.states.push('notApplicable');
    if (this.verifiedNow.tests.length < count) {
      const larger = new Uint32Array(Math.ceil(count * 1.1) + 16);
      larger.set(this.verifiedNow.tests);
      this.verifiedNow.tests = larger;
    }
  }

  /** Computes anew only the states that these changed items and link ends can have moved: their own and those upstream. */
  refresh(touched: Set<number>): void {
    if (!this.verifiedNow) return;
    for (const node of this.withUpstream(touched)) this.compute(this.verifiedNow, node);
  }

  /** The nodes, and all whose state rests on theirs. */
  private withUpstream(touched: Set<number>): Set<number> {
    const { graph } = this.ground;
    const scheme = this.ground.scheme();
    const upward = new Set([scheme.verification.verifies, scheme.verification.derives].map((id) => scheme.linkKinds.findIndex((kind) => kind.id === id)));
    for (const node of touched)
      graph.forEachLink(node, 'out', (link, other) => {
        if (upward.has(graph.kind[link]!)) touched.add(other);
      });
    return touched;
  }

  /** States that would be others if some items came to say something else now. Nothing is kept of it. */
  statesIfChanged(nodes: readonly number[]): Map<number, VerificationState> {
    const evidence = this.evidence();
    const touched = this.withUpstream(new Set(nodes));
    const before = nodes.map((node) => evidence.meaningSeq[node]!);
    for (const node of nodes) evidence.meaningSeq[node] = LATER;
    const changed = new Set(nodes);
    const others = new Map<number, VerificationState>();
    for (const node of touched) {
      const now = this.states()[node]!;
      const then = evidence.test[node] ? (now === 'verified' && changed.has(node) ? 'stale' : now) : readVerification(this.ground.graph, evidence, node).state;
      if (then !== now) others.set(node, then);
    }
    nodes.forEach((node, at) => (evidence.meaningSeq[node] = before[at]!));
    return others;
  }

  forget(): void {
    this.evidenceNow = undefined;
    this.forgetStates();
  }

  forgetStates(): void {
    this.verifiedNow = undefined;
  }

  private verified(): { states: VerificationState[]; tests: Uint32Array } {
    if (this.verifiedNow) return this.verifiedNow;
    const evidence = this.evidence();
    const count = this.ground.items.length;
    const verified = { states: new Array<VerificationState>(count).fill('notApplicable'), tests: new Uint32Array(count) };
    for (let node = 0; node < count; node++) if (evidence.test[node] || evidence.subject[node]) this.compute(verified, node);
    this.verifiedNow = verified;
    return verified;
  }

  private compute(verified: { states: VerificationState[]; tests: Uint32Array }, node: number): void {
    const evidence = this.evidence();
    verified.tests[node] = 0;
    if (evidence.test[node]) {
      verified.states[node] = this.testState(node);
      return;
    }
    const reading = readVerification(this.ground.graph, evidence, node);
    verified.states[node] = reading.state;
    verified.tests[node] = reading.tests.length;
  }

  private testState(node: number): VerificationState {
    const item = this.ground.items[node]!;
    const result = this.ground.latest(item.id);
    if (item.withdrawn || item.heading) return 'notApplicable';
    if (!result || result.outcome === 'skipped') return 'planned';
    if (result.outcome !== 'passed') return 'failing';
    return item.meaningSeq > result.seq ? 'stale' : 'verified';
  }

  /** Writes what verification asks of a node into the columns. */
  private buildReader(): (evidence: Evidence, node: number) => void {
    const scheme = this.ground.scheme();
    const { of, waivedBy } = scheme.verification;
    const tests = new Set(testKinds(scheme));
    const waivedItems = this.ground.waived(waivedBy);
    return (evidence, node) => {
      const item = this.ground.items[node]!;
      const counts = !item.withdrawn && !item.heading;
      evidence.present[node] = Number(!item.withdrawn);
      evidence.subject[node] = Number(counts && of.kinds.includes(item.kind));
      evidence.test[node] = Number(counts && tests.has(item.kind));
      evidence.waived[node] = Number(counts && waivedItems.has(item.id));
      evidence.meaningSeq[node] = item.meaningSeq;
    };
  }

  private evidence(): Evidence {
    if (this.evidenceNow) return this.evidenceNow;
    const { items, latest } = this.ground;
    const scheme = this.ground.scheme();
    const { verifies, derives } = scheme.verification;
    const count = items.length;
    const index = (id: string) => scheme.linkKinds.findIndex((kind) => kind.id === id);
    const evidence: Evidence = {
      subject: new Uint8Array(count),
      waived: new Uint8Array(count),
      present: new Uint8Array(count),
      test: new Uint8Array(count),
      meaningSeq: Uint32Array.from(items, (item) => item.meaningSeq),
      latest: (node) => latest(items[node]!.id),
      verifies: index(verifies),
      ...(derives !== null && { derives: index(derives) }),
    };
    const read = this.buildReader();
    for (let node = 0; node < count; node++) read(evidence, node);
    this.evidenceNow = evidence;
    return evidence;
  }
}
