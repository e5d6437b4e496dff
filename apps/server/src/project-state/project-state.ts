import type { Brief, Collection } from '@coomb/contract';
import {
  buildOutline,
  buildQuestion,
  type CoverageItems,
  type CoverageQuestion,
  type CoverageRule,
  type Evidence,
  findKind,
  type LatestResult,
  LiveCoverage,
  readVerification,
  type Scheme,
  TraceGraph,
  type VerificationReading,
  type VerificationState,
} from '@coomb/core';
import { LinkIds } from './link-ids.js';
import type { Change, CollectionRow, ItemRow, LinkRow, WaiverRow } from '../ledger/change.js';

/** What memory keeps of an item; its text stays in the database. */
export type LightItem = Pick<
  ItemRow,
  'id' | 'collectionId' | 'kind' | 'reference' | 'title' | 'heading' | 'parentId' | 'rank' | 'withdrawn' | 'meaningSeq' | 'revision' | 'externalId' | 'sourceId'
>;

export interface LightLinks {
  /** Sixteen bytes each. */
  id: Uint8Array;
  from: Uint32Array;
  to: Uint32Array;
  kind: Uint8Array;
  fromSeq: Uint32Array;
  toSeq: Uint32Array;
}

export interface TestResult extends LatestResult {
  run: string;
  at: string;
}

export interface ProjectParts {
  id: string;
  name: string;
  createdAt: string;
  scheme: Scheme;
  seq: number;
  collections: CollectionRow[];
  items: LightItem[];
  links: LightLinks;
  waivers: WaiverRow[];
  latest: Map<string, TestResult>;
  sources: number;
  /** Values of the fields that coverage rules filter by: field, then item. */
  ruleFields: Map<string, Map<string, unknown>>;
}

export interface OutlineOrder {
  /** Nodes in reading order, withdrawn ones left out. */
  nodes: Int32Array;
  /** Row of each node, or -1. */
  rowOf: Int32Array;
  /** Row of each row's parent, or -1. */
  parent: Int32Array;
}

/**
 * One project in memory: items as nodes of the trace graph, and all that is computed from them, kept until something changes it.
 * Only ProjectStates changes it, after the database did.
 */
export class ProjectState {
  readonly id: string;
  readonly createdAt: string;
  name: string;
  scheme: Scheme;
  seq: number;
  collections: CollectionRow[];
  readonly items: LightItem[];
  readonly nodeOf = new Map<string, number>();
  readonly byReference = new Map<string, number>();
  readonly graph: TraceGraph;
  readonly linkIds: LinkIds;
  readonly waivers = new Map<string, WaiverRow>();
  latest: Map<string, TestResult>;
  sources: number;
  private readonly ruleFields: Map<string, Map<string, unknown>>;
  private readonly lastNumber = new Map<string, number>();
  private readonly fromSeq: number[];
  private readonly toSeq: number[];
  private readonly coverageOf = new Map<string, LiveCoverage>();
  private readonly questionOf = new Map<string, CoverageQuestion>();
  private order: OutlineOrder | undefined;
  private evidenceNow: Evidence | undefined;
  private marks: { linked: Uint8Array; suspect: Uint8Array; suspectLinks: number } | undefined;
  private states: { states: VerificationState[]; tests: Uint32Array } | undefined;

  constructor(parts: ProjectParts) {
    this.id = parts.id;
    this.name = parts.name;
    this.createdAt = parts.createdAt;
    this.scheme = parts.scheme;
    this.seq = parts.seq;
    this.collections = parts.collections;
    this.items = parts.items;
    this.latest = parts.latest;
    this.sources = parts.sources;
    this.ruleFields = parts.ruleFields;
    parts.items.forEach((item, node) => {
      this.nodeOf.set(item.id, node);
      this.byReference.set(item.reference.toLowerCase(), node);
    });
    const { links } = parts;
    this.linkIds = new LinkIds(links.id);
    this.fromSeq = Array.from(links.fromSeq);
    this.toSeq = Array.from(links.toSeq);
    this.graph = TraceGraph.build({ nodes: parts.items.length, from: links.from, to: links.to, kind: links.kind });
    for (let link = 0; link < links.from.length; link++) this.graph.setSuspect(link, this.computeSuspect(link));
    for (const waiver of parts.waivers) this.waivers.set(waiver.id, waiver);
  }

  /** Follows committed changes. Links alone move coverage in place; anything else lets it be computed anew. */
  apply(changes: readonly Change[], seq: number): void {
    this.seq = seq;
    let structure = false;
    for (const change of changes) {
      if (change.entity === 'item') structure = this.applyItem(change.after) || structure;
      if (change.entity === 'collection') this.applyCollection(change.after);
      if (change.entity === 'source')
        this.sources += change.before === null || change.before.withdrawn ? (change.after.withdrawn ? 0 : 1) : change.after.withdrawn ? -1 : 0;
      if (change.entity === 'waiver') this.waivers.set(change.after.id, change.after);
      if (change.entity !== 'item' && change.entity !== 'link') structure = true;
    }
    if (structure) this.forget();
    for (const change of changes) if (change.entity === 'link') this.applyLink(change.after);
    this.marks = undefined;
    if (structure || changes.length > 200) this.states = undefined;
    else this.refreshStates(changes);
  }

  /** Computes anew only the states that a few changed items and links can have moved. */
  private refreshStates(changes: readonly Change[]): void {
    const { states } = this;
    if (!states) return;
    const touched = new Set<number>();
    for (const change of changes) {
      if (change.entity === 'item') touched.add(this.nodeOf.get(change.after.id)!);
      if (change.entity === 'link') touched.add(this.nodeOf.get(change.after.fromId)!).add(this.nodeOf.get(change.after.toId)!);
    }
    const { verifies, derives } = this.scheme.verification;
    const upward = new Set([this.linkKindIndex(verifies), ...(derives === null ? [] : [this.linkKindIndex(derives)])]);
    for (const node of touched)
      this.graph.forEachLink(node, 'out', (link, other) => {
        if (upward.has(this.graph.kind[link]!)) touched.add(other);
      });
    for (const node of touched) this.readState(states, node);
  }

  forget(): void {
    this.coverageOf.clear();
    this.questionOf.clear();
    this.order = undefined;
    this.evidenceNow = undefined;
    this.marks = undefined;
    this.states = undefined;
  }

  brief(node: number): Brief {
    const item = this.items[node]!;
    return {
      id: item.id,
      node,
      reference: item.reference,
      title: item.title,
      kind: item.kind,
      collection: item.collectionId,
      heading: item.heading,
      withdrawn: item.withdrawn,
      state: this.stateOf(node),
    };
  }

  isPresent(node: number): boolean {
    return !this.items[node]!.withdrawn;
  }

  describeCollections(): Collection[] {
    const counts = new Map<string, number>();
    for (const item of this.items) if (!item.withdrawn && !item.heading) counts.set(item.collectionId, (counts.get(item.collectionId) ?? 0) + 1);
    return this.liveCollections().map(({ id, name, holds, prefix, kind, withdrawn }) => ({
      id,
      name,
      holds,
      prefix,
      kind,
      withdrawn,
      items: counts.get(id) ?? 0,
    }));
  }

  liveCollections(): CollectionRow[] {
    return this.collections.filter((collection) => !collection.withdrawn).sort((a, b) => this.layerOf(a) - this.layerOf(b) || a.rank - b.rank);
  }

  /** Items in reading order, collection by collection. */
  outline(): OutlineOrder {
    if (this.order) return this.order;
    const byCollection = new Map<string, (LightItem & { node: number })[]>();
    this.items.forEach((item, node) => {
      if (item.withdrawn) return;
      const list = byCollection.get(item.collectionId);
      if (list) list.push({ ...item, node });
      else byCollection.set(item.collectionId, [{ ...item, node }]);
    });
    const nodes: number[] = [];
    const parent: number[] = [];
    const rowOf = new Int32Array(this.items.length).fill(-1);
    for (const collection of this.liveCollections())
      for (const { row } of buildOutline(byCollection.get(collection.id) ?? [])) {
        rowOf[row.node] = nodes.length;
        const up = row.parentId === null ? undefined : this.nodeOf.get(row.parentId);
        parent.push(up === undefined ? -1 : rowOf[up]!);
        nodes.push(row.node);
      }
    this.order = { nodes: Int32Array.from(nodes), rowOf, parent: Int32Array.from(parent) };
    return this.order;
  }

  /** The next free number behind a prefix; references are never used again, so withdrawn items count. */
  nextNumber(prefix: string): number {
    if (this.lastNumber.size === 0) {
      this.lastNumber.set('', 0);
      for (const item of this.items) {
        const found = findAnyNumber(item.reference);
        if (found && (this.lastNumber.get(found.prefix) ?? 0) < found.number) this.lastNumber.set(found.prefix, found.number);
      }
    }
    return (this.lastNumber.get(prefix.toLowerCase()) ?? 0) + 1;
  }

  findRule(id: string): CoverageRule | undefined {
    return this.scheme.rules.find((rule) => rule.id === id);
  }

  question(rule: CoverageRule): CoverageQuestion {
    let question = this.questionOf.get(rule.id);
    if (!question) this.questionOf.set(rule.id, (question = buildQuestion(this.scheme, rule, this.coverageItems())));
    return question;
  }

  coverage(rule: CoverageRule): LiveCoverage {
    let coverage = this.coverageOf.get(rule.id);
    if (!coverage) this.coverageOf.set(rule.id, (coverage = new LiveCoverage(this.graph, this.question(rule))));
    return coverage;
  }

  stateOf(node: number): VerificationState {
    return this.allStates()[node]!;
  }

  /** Verification state by node: of requirements from evidence, of test cases from their own latest result. */
  allStates(): VerificationState[] {
    return this.verified().states;
  }

  /** How many tests count for each node. */
  testCounts(): Uint32Array {
    return this.verified().tests;
  }

  private readState(verified: { states: VerificationState[]; tests: Uint32Array }, node: number): void {
    const evidence = this.evidence();
    if (evidence.test[node]) {
      verified.states[node] = this.testState(node);
      return;
    }
    const reading = readVerification(this.graph, evidence, node);
    verified.states[node] = reading.state;
    verified.tests[node] = reading.tests.length;
  }

  /** For each node: whether a live link reaches it, and whether a suspect one does. In one pass over the links, kept until a change. */
  linkMarks(): { linked: Uint8Array; suspect: Uint8Array; suspectLinks: number } {
    if (this.marks) return this.marks;
    const { graph } = this;
    const marks = { linked: new Uint8Array(graph.nodes), suspect: new Uint8Array(graph.nodes), suspectLinks: 0 };
    for (let link = 0; link < graph.links; link++) {
      const [from, to] = [graph.from[link]!, graph.to[link]!];
      if (!graph.isAlive(link) || this.items[from]!.withdrawn || this.items[to]!.withdrawn) continue;
      marks.linked[from] = marks.linked[to] = 1;
      if (!graph.isSuspect(link)) continue;
      marks.suspect[from] = marks.suspect[to] = 1;
      marks.suspectLinks++;
    }
    this.marks = marks;
    return marks;
  }

  private verified(): { states: VerificationState[]; tests: Uint32Array } {
    if (this.states) return this.states;
    const evidence = this.evidence();
    const verified = { states: new Array<VerificationState>(this.items.length).fill('notApplicable'), tests: new Uint32Array(this.items.length) };
    this.items.forEach((_, node) => {
      if (evidence.test[node] || evidence.subject[node]) this.readState(verified, node);
    });
    this.states = verified;
    return verified;
  }

  verification(node: number): VerificationReading {
    return readVerification(this.graph, this.evidence(), node);
  }

  isWaived(item: string, rule: string, today: string): boolean {
    for (const waiver of this.waivers.values()) if (waiver.itemId === item && waiver.rule === rule && isActive(waiver, today)) return true;
    return false;
  }

  private testState(node: number): VerificationState {
    const item = this.items[node]!;
    const result = this.latest.get(item.id);
    if (item.withdrawn || item.heading) return 'notApplicable';
    if (!result || result.outcome === 'skipped') return 'planned';
    if (result.outcome !== 'passed') return 'failing';
    return item.meaningSeq > result.seq ? 'stale' : 'verified';
  }

  private evidence(): Evidence {
    if (this.evidenceNow) return this.evidenceNow;
    const { of, verifies, derives, waivedBy } = this.scheme.verification;
    const count = this.items.length;
    const evidence: Evidence = {
      subject: new Uint8Array(count),
      waived: new Uint8Array(count),
      present: new Uint8Array(count),
      test: new Uint8Array(count),
      meaningSeq: Uint32Array.from(this.items, (item) => item.meaningSeq),
      latest: (node) => this.latest.get(this.items[node]!.id),
      verifies: this.linkKindIndex(verifies),
      ...(derives !== null && { derives: this.linkKindIndex(derives) }),
    };
    const testKinds = new Set(this.scheme.linkKinds.find((kind) => kind.id === verifies)?.fromKinds ?? []);
    const waived = this.waivedItems(waivedBy);
    this.items.forEach((item, node) => {
      if (item.withdrawn) return;
      evidence.present[node] = 1;
      if (item.heading) return;
      if (of.kinds.includes(item.kind)) evidence.subject[node] = 1;
      if (testKinds.has(item.kind)) evidence.test[node] = 1;
      if (waived.has(item.id)) evidence.waived[node] = 1;
    });
    this.evidenceNow = evidence;
    return evidence;
  }

  linkKindIndex(id: string): number {
    return this.scheme.linkKinds.findIndex((kind) => kind.id === id);
  }

  private coverageItems(): CoverageItems {
    const waivedBy = new Map(this.scheme.rules.map((rule) => [rule.id, this.waivedItems(rule.id)]));
    return {
      count: this.items.length,
      kindOf: (node) => this.items[node]!.kind,
      isPresent: (node) => this.isPresent(node),
      isHeading: (node) => this.items[node]!.heading || findKind(this.scheme, this.items[node]!.kind)?.informative === true,
      fieldOf: (node, field) => this.ruleFields.get(field)?.get(this.items[node]!.id),
      isWaived: (node, rule) => waivedBy.get(rule)!.has(this.items[node]!.id),
    };
  }

  private waivedItems(rule: string): Set<string> {
    const today = new Date().toISOString().slice(0, 10);
    return new Set([...this.waivers.values()].filter((waiver) => waiver.rule === rule && isActive(waiver, today)).map((waiver) => waiver.itemId));
  }

  private layerOf(collection: CollectionRow): number {
    const layer = findKind(this.scheme, collection.kind)?.layer;
    return this.scheme.layers.findIndex((one) => one.id === layer);
  }

  /** Returns whether coverage must be computed anew. */
  private applyItem(row: ItemRow): boolean {
    const known = this.nodeOf.get(row.id);
    const node = known ?? this.graph.addNode();
    const before = this.items[node];
    const { id, collectionId, kind, reference, title, heading, parentId, rank, withdrawn, meaningSeq, revision, externalId, sourceId } = row;
    if (before && before.reference !== reference) this.byReference.delete(before.reference.toLowerCase());
    this.items[node] = { id, collectionId, kind, reference, title, heading, parentId, rank, withdrawn, meaningSeq, revision, externalId, sourceId };
    this.nodeOf.set(id, node);
    this.byReference.set(reference.toLowerCase(), node);
    const number = this.lastNumber.size ? findAnyNumber(reference) : undefined;
    if (number && (this.lastNumber.get(number.prefix) ?? 0) < number.number) this.lastNumber.set(number.prefix, number.number);
    for (const [field, values] of this.ruleFields) values.set(id, row.fields[field]);
    if (before && before.meaningSeq !== meaningSeq) this.followMeaning(node);
    if (!before || before.title !== title || before.parentId !== parentId || before.rank !== rank || before.withdrawn !== withdrawn) this.order = undefined;
    if (this.evidenceNow && before) this.evidenceNow.meaningSeq[node] = meaningSeq;
    return !before || before.kind !== kind || before.withdrawn !== withdrawn || before.heading !== heading || this.ruleFields.size > 0;
  }

  private applyCollection(row: CollectionRow): void {
    this.collections = [...this.collections.filter((one) => one.id !== row.id), row];
  }

  private applyLink(row: LinkRow): void {
    const known = this.linkIds.find(row.id);
    const from = this.nodeOf.get(row.fromId)!;
    const to = this.nodeOf.get(row.toId)!;
    if (known === undefined) {
      if (row.withdrawn) return;
      const link = this.graph.addLink(from, to, this.linkKindIndex(row.kind));
      this.linkIds.add(row.id);
      this.fromSeq[link] = row.fromSeq;
      this.toSeq[link] = row.toSeq;
      this.graph.setSuspect(link, this.computeSuspect(link));
      for (const coverage of this.coverageOf.values()) coverage.linkAdded(link);
      return;
    }
    this.fromSeq[known] = row.fromSeq;
    this.toSeq[known] = row.toSeq;
    if (row.withdrawn && this.graph.isAlive(known)) {
      this.graph.removeLink(known);
      for (const coverage of this.coverageOf.values()) coverage.linkRemoved(known);
    } else if (!row.withdrawn && !this.graph.isAlive(known)) {
      this.graph.restoreLink(known);
      this.graph.setSuspect(known, this.computeSuspect(known));
      for (const coverage of this.coverageOf.values()) coverage.linkAdded(known);
    } else this.followSuspicion(known);
  }

  private followMeaning(node: number): void {
    for (const direction of ['out', 'in'] as const) this.graph.forEachLink(node, direction, (link) => this.followSuspicion(link));
  }

  private followSuspicion(link: number): void {
    const suspect = this.computeSuspect(link);
    if (!this.graph.isAlive(link) || suspect === this.graph.isSuspect(link)) return;
    this.graph.setSuspect(link, suspect);
    for (const coverage of this.coverageOf.values()) coverage.suspicionChanged(link);
  }

  private computeSuspect(link: number): boolean {
    return this.fromSeq[link] !== this.items[this.graph.from[link]!]!.meaningSeq || this.toSeq[link] !== this.items[this.graph.to[link]!]!.meaningSeq;
  }
}

export function isActive(waiver: WaiverRow, today: string): boolean {
  return !waiver.withdrawn && (waiver.until === null || waiver.until >= today);
}

function findAnyNumber(reference: string): { prefix: string; number: number } | undefined {
  const match = /^(.*)-(\d{1,9})$/.exec(reference);
  return match ? { prefix: match[1]!.toLowerCase(), number: Number(match[2]) } : undefined;
}
