import type { Brief, Collection } from '@coomb/contract';
import {
  type CoverageItems,
  type CoverageQuestion,
  type CoverageRule,
  type CoverageState,
  type FieldFindings,
  findKind,
  type CoverageReading,
  type Scheme,
  type TraceGraph,
  type VerificationReading,
  type VerificationState,
} from '@coomb/core';
import type { Change, CollectionValue, ItemValue, LinkValue, SchemePartValue, SetValue, UsageValue, WaiverValue } from '../ledger/change.js';
import { asideEntities } from '../ledger/entities.js';
import { FieldValues } from './field-values.js';
import { type DoubtfulFields, FoundFields } from './found-fields.js';
import { LastNumbers } from './last-numbers.js';
import { NodesByReference } from './nodes-by-reference.js';
import type { LinkIds } from './link-ids.js';
import { type LinkMarks, LinkTable, type LinkUsage } from './link-table.js';
import type { ProjectParts, TestResult } from './project-parts.js';
import type { LightItem } from './light-item.js';
import { FollowedOrder } from './followed-order.js';
import { NodesByKind } from './nodes-by-kind.js';
import type { OutlineOrder } from './outline-order.js';
import { ProjectCoverage } from './project-coverage.js';
import { ProjectUsages } from './project-usages.js';
import { UseMeanings } from './use-meanings.js';
import { ProjectVerification } from './project-verification.js';
import { buildScheme, ruleFieldsOf } from './scheme-parts.js';

/**
 * What a change of each sort of thing lets memory compute anew: nothing where no figure hangs on it, or where it is followed one by one;
 * the order of the outline; or all figures.
 */
const invalidates: Readonly<Record<Change['entity'], 'nothing' | 'order' | 'figures'>> = {
  item: 'nothing',
  link: 'nothing',
  waiver: 'nothing',
  errand: 'nothing',
  refusal: 'nothing',
  project: 'nothing',
  report: 'nothing',
  baseline: 'nothing',
  savedView: 'nothing',
  recipe: 'nothing',
  source: 'nothing',
  clipping: 'nothing',
  drawing: 'nothing',
  waitingEnd: 'nothing',
  run: 'nothing',
  collection: 'order',
  set: 'order',
  usage: 'figures',
  schemePart: 'figures',
};
/** With more items changed at once it is quicker to compute anew. */
const MOST_FOLLOWED = 200;

/**
 * One project in memory: items as nodes of the trace graph, and all that is computed from them, kept until something changes it.
 * Only ProjectStates changes it, after the database did.
 */
export class ProjectState {
  readonly id: string;
  /** Life of the data that nodes and changes are counted in. */
  readonly life: string;
  readonly createdAt: string;
  name: string;
  /** Another one after each change of it. */
  scheme: Scheme;
  private readonly parts = new Map<string, SchemePartValue>();
  seq: number;
  /** Number of the last change of what reports tell of: publishing one makes no other old. */
  contentSeq: number;
  /** The day that it is, for what holds until one: 2026-11-27. */
  day: string;
  collections: CollectionValue[];
  sets: SetValue[];
  archived: boolean;
  out: boolean;
  readonly items: LightItem[];
  readonly nodeOf: Map<string, number>;
  readonly byReference: NodesByReference;
  readonly waivers = new Map<string, WaiverValue>();
  readonly usages: ProjectUsages;
  private readonly useMeanings: UseMeanings;
  latest: Map<string, TestResult>;
  sources: number;
  private readonly fields: FieldValues;
  private readonly foundFields: FoundFields;
  private lastNumbers: LastNumbers | undefined;
  private readonly links: LinkTable;
  private readonly rules: ProjectCoverage;
  private readonly verifying: ProjectVerification;
  private readonly order: FollowedOrder;
  private readonly kinds: NodesByKind;
  private readonly followers = new Set<(changes: readonly Change[]) => void>();

  constructor(parts: ProjectParts) {
    this.id = parts.id;
    this.life = parts.life;
    this.name = parts.name;
    this.createdAt = parts.createdAt;
    for (const part of parts.schemeParts) this.parts.set(part.id, part);
    this.scheme = buildScheme(this.parts.values());
    this.seq = parts.seq;
    this.contentSeq = parts.contentSeq;
    this.day = parts.day;
    this.collections = parts.collections;
    this.sets = parts.sets;
    this.archived = parts.archived;
    this.out = parts.out;
    this.items = parts.items;
    this.latest = parts.latest;
    this.sources = parts.sources;
    this.fields = new FieldValues(parts.kept);
    this.foundFields = new FoundFields(parts.foundFields);
    this.nodeOf = parts.known?.nodeOf ?? new Map();
    this.byReference = parts.known?.byReference ?? new NodesByReference((node) => this.items[node]!.reference, parts.items.length);
    if (!parts.known)
      parts.items.forEach((item, node) => {
        this.nodeOf.set(item.id, node);
        this.byReference.set(item.reference.toLowerCase(), node);
      });
    for (const waiver of parts.waivers) this.waivers.set(waiver.id, waiver);
    this.useMeanings = new UseMeanings(parts.usages);
    this.links = new LinkTable(parts.items.length, parts.links, {
      meaningOf: (node, usage) => this.useMeanings.newest(this.items[node]!, this.useMeanings.pathOf(usage)),
      isPresent: (node) => !this.items[node]!.withdrawn,
    });
    const { items, nodeOf, links, graph } = this;
    this.kinds = new NodesByKind(items);
    this.order = new FollowedOrder({ items, nodeOf, collections: () => this.liveCollections() }, parts.known?.order);
    this.usages = new ProjectUsages(parts.usages, { whole: () => ({ scheme: this.scheme, items, nodeOf, graph }), links });
    this.rules = new ProjectCoverage(
      () => this.scheme,
      this.graph,
      () => this.coverageItems(),
      () => this.usages.ends(),
    );
    this.verifying = new ProjectVerification({
      scheme: () => this.scheme,
      graph: this.graph,
      items: this.items,
      latest: (item) => this.latest.get(item),
      waived: (rule) => this.waivedItems(rule),
    });
  }

  /** What another state can be made of that is as this one is now, and goes its own way. */
  snapshot(): ProjectParts {
    const items = [...this.items];
    return {
      id: this.id,
      name: this.name,
      createdAt: this.createdAt,
      schemeParts: [...this.parts.values()],
      seq: this.seq,
      contentSeq: this.contentSeq,
      life: this.life,
      day: this.day,
      collections: [...this.collections],
      sets: [...this.sets],
      archived: this.archived,
      out: this.out,
      items,
      known: {
        nodeOf: new Map(this.nodeOf),
        byReference: this.byReference.copy((node) => items[node]!.reference),
        order: this.order.snapshot(),
      },
      links: this.links.snapshot(),
      waivers: [...this.waivers.values()],
      usages: [...this.usages.values()],
      latest: this.latest,
      sources: this.sources,
      kept: this.fields.snapshot(),
      foundFields: this.foundFields.snapshot(),
    };
  }

  get standing(): 'open' | 'archived' | 'out' {
    return this.out ? 'out' : this.archived ? 'archived' : 'open';
  }

  get graph(): TraceGraph {
    return this.links.graph;
  }

  get linkIds(): LinkIds {
    return this.links.ids;
  }

  /** Follows committed changes: links and items one by one, in every figure that was computed already. */
  apply(changes: readonly Change[], seq: number): void {
    this.seq = seq;
    if (changes.some((change) => !asideEntities.includes(change.entity))) this.contentSeq = seq;
    if (changes.some((change) => change.entity === 'schemePart')) this.followScheme(changes);
    for (const change of changes) if (change.entity === 'source') this.fields.followRecipe(change.after.recipe);
    const moved = new Set<number>();
    let anew = false;
    // Many rows one by one take longer than all of them at once.
    if (changes.length > MOST_FOLLOWED && changes.some((change) => change.entity === 'item' && !this.nodeOf.has(change.after.id))) this.order.forget();
    for (const change of changes) {
      if (change.entity === 'item') moved.add(this.applyItem(change.after));
      if (change.entity === 'collection') this.applyCollection(change.after);
      if (change.entity === 'source')
        this.sources += change.before === null || change.before.withdrawn ? (change.after.withdrawn ? 0 : 1) : change.after.withdrawn ? -1 : 0;
      if (change.entity === 'project') ({ name: this.name, archived: this.archived, withdrawn: this.out } = change.after);
      if (change.entity === 'set') this.sets = [...this.sets.filter((one) => one.id !== change.after.id), change.after];
      if (change.entity === 'usage') this.applyUsage(change.after);
      if (change.entity === 'waiver') {
        this.waivers.set(change.after.id, change.after);
        moved.add(this.nodeOf.get(change.after.itemId)!);
      }
      if (invalidates[change.entity] === 'order') this.order.forget();
      if (invalidates[change.entity] === 'figures') anew = true;
    }
    if (anew) this.forget();
    else if (moved.size > MOST_FOLLOWED) {
      this.forgetFigures();
      anew = true;
    } else if (moved.size > 0) {
      const nodes = [...moved];
      this.links.presenceChanged(nodes);
      this.rules.followNodes(nodes);
      this.verifying.followNodes(nodes);
    }
    const reshaped = this.usages.size > 0 && changes.some((change) => this.changesComposition(change));
    for (const change of changes) if (change.entity === 'link') this.applyLink(change.after);
    if (reshaped) {
      this.usages.forget();
      this.rules.forget();
    }
    if (anew || changes.length > MOST_FOLLOWED) this.verifying.forgetStates();
    else this.verifying.refresh(this.findTouched(changes));
    for (const follower of this.followers) follower(changes);
  }

  private applyUsage(usage: UsageValue): void {
    this.usages.apply(usage);
    this.useMeanings.apply(usage);
    const node = this.nodeOf.get(usage.itemId);
    if (node !== undefined) this.links.followMeaning(node);
  }

  /** Number of the newest change of what an end of a link means: wherever it holds, or in the use that the link holds in only. */
  meaningOf(item: { id: string; meaningSeq: number }, path: readonly string[] | undefined): number {
    return this.useMeanings.newest(item, path);
  }

  /** Whether a change makes parts of something, or of something else. */
  private changesComposition(change: Change): boolean {
    if (change.entity === 'link') {
      const role = this.scheme.linkKinds[this.linkKindIndex(change.after.kind)]?.role;
      return role === 'types' || role === 'composes';
    }
    if (change.entity !== 'item' || change.after.heading) return false;
    const { before, after } = change;
    if (before !== null) return before.parentId !== after.parentId || before.withdrawn !== after.withdrawn;
    return after.parentId !== null && this.items[this.nodeOf.get(after.parentId) ?? -1]?.heading === false;
  }

  /** Its scheme, part by part: what people change, with the revisions that they saw. */
  schemeParts(): SchemePartValue[] {
    return [...this.parts.values()].sort((a, b) => a.number - b.number);
  }

  private followScheme(changes: readonly Change[]): void {
    for (const change of changes) if (change.entity === 'schemePart') this.parts.set(change.after.id, change.after);
    this.scheme = buildScheme(this.parts.values());
  }

  /** Fields that rules filter by and whose values memory does not hold yet. */
  findUnknownFields(scheme = this.scheme): string[] {
    return ruleFieldsOf(scheme).filter((field) => !this.fields.holds(field));
  }

  /** What these changes would make of the scheme. */
  schemeOf(changes: readonly Change[]): Scheme {
    const parts = new Map(this.parts);
    for (const change of changes) if (change.entity === 'schemePart') parts.set(change.after.id, change.after);
    return buildScheme(parts.values());
  }

  /** Values of fields by item, as the database has them now: from here on they follow every change. */
  learnFields(values: ReadonlyMap<string, Map<string, unknown>>): void {
    this.fields.learn(values);
    this.forget();
  }

  /** What the fields of an item leave to be desired. */
  fieldFindings(node: number): FieldFindings | undefined {
    return this.foundFields.get(this.items[node]!.id);
  }

  /** Items that are present and whose fields leave something to be desired, in no order. */
  nodesWithFieldFindings(): number[] {
    const nodes: number[] = [];
    for (const id of this.foundFields.ids) {
      const node = this.nodeOf.get(id);
      if (node !== undefined && !this.items[node]!.withdrawn && !this.items[node]!.heading) nodes.push(node);
    }
    return nodes;
  }

  /** After a change of the scheme: the items whose fields may not be as it says now. */
  learnDoubtful(doubtful: readonly DoubtfulFields[], scheme = this.scheme): void {
    this.foundFields.learn(scheme, doubtful);
  }

  /** Goes back to an earlier change: `changes` put back what was changed later, the items in `unborn` came later. */
  rewind(changes: readonly Change[], unborn: readonly string[], { seq, contentSeq }: { seq: number; contentSeq: number }): void {
    this.apply(changes, seq);
    this.contentSeq = contentSeq;
    for (const id of unborn) {
      const node = this.nodeOf.get(id)!;
      const item = this.items[node]!;
      this.items[node] = { ...item, withdrawn: true };
      this.nodeOf.delete(id);
      this.fields.forget(id);
      this.foundFields.forget(id);
      if (this.byReference.get(item.reference.toLowerCase()) === node) this.byReference.delete(item.reference.toLowerCase());
    }
    if (unborn.length > 0) this.order.forget();
    this.forgetFigures();
  }

  /** Calls back after every commit, once this state follows it. Returns what ends that. */
  follow(follower: (changes: readonly Change[]) => void): () => void {
    this.followers.add(follower);
    return () => this.followers.delete(follower);
  }

  /** Nodes that the changes name: the items, and both ends of the links. */
  private findTouched(changes: readonly Change[]): Set<number> {
    const touched = new Set<number>();
    for (const change of changes) {
      if (change.entity === 'item') touched.add(this.nodeOf.get(change.after.id)!);
      if (change.entity === 'link') touched.add(this.nodeOf.get(change.after.fromId)!).add(this.nodeOf.get(change.after.toId)!);
      if (change.entity === 'waiver') touched.add(this.nodeOf.get(change.after.itemId)!);
    }
    return touched;
  }

  /** Results came in or went: states rest on them, coverage does not. */
  forgetStates(): void {
    this.verifying.forgetStates();
  }

  forget(): void {
    this.order.forget();
    this.forgetFigures();
  }

  private forgetFigures(): void {
    this.kinds.forget();
    this.usages.forget();
    this.rules.forget();
    this.verifying.forget();
    this.links.forgetMarks();
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
    const sets = new Set(this.liveSets().map((set) => set.id));
    return this.liveCollections().map(({ id, name, holds, prefix, kind, withdrawn, setId }) => ({
      id,
      name,
      holds,
      prefix,
      kind,
      withdrawn,
      set: setId !== null && sets.has(setId) ? setId : null,
      items: counts.get(id) ?? 0,
    }));
  }

  /** Items (without sections) and links that are present. */
  count(): { items: number; links: number } {
    let items = 0;
    for (const { withdrawn, heading } of this.items) if (!withdrawn && !heading) items++;
    let links = 0;
    for (let link = 0; link < this.graph.links; link++) if (this.graph.isAlive(link)) links++;
    return { items, links };
  }

  liveCollections(): CollectionValue[] {
    const setRank = new Map(this.sets.map((set) => [set.id, set.rank]));
    const ofSet = ({ setId }: CollectionValue) => (setId === null ? -1 : (setRank.get(setId) ?? -1));
    return this.collections
      .filter((collection) => !collection.withdrawn)
      .sort((a, b) => this.layerOf(a) - this.layerOf(b) || ofSet(a) - ofSet(b) || a.rank - b.rank);
  }

  liveSets(): SetValue[] {
    return this.sets.filter((set) => !set.withdrawn).sort((a, b) => a.rank - b.rank);
  }

  /** Items in reading order, collection by collection. */
  outline(): OutlineOrder {
    return this.order.now();
  }

  /** The next free number behind a prefix; references are never used again, so withdrawn items count. */
  nextNumber(prefix: string): number {
    this.lastNumbers ??= new LastNumbers(this.items.map((item) => item.reference));
    return this.lastNumbers.next(prefix);
  }

  findRule(id: string): CoverageRule | undefined {
    return this.scheme.rules.find((rule) => rule.id === id);
  }

  question(rule: CoverageRule): CoverageQuestion {
    return this.rules.question(rule);
  }

  coverage(rule: CoverageRule): CoverageReading {
    return this.rules.coverage(rule);
  }

  /** Coverage of an item in one of its uses, by ids of the path; everywhere together where none is said. */
  coverageIn(rule: CoverageRule, node: number, use?: readonly string[]): CoverageState {
    const ends = this.usages.ends();
    const reading = this.coverage(rule);
    if (!use || !ends) return reading.stateOf(node);
    const state = this.rules.stateIn(rule, node, this.usages.numberOf(use), ends);
    return state !== 'met' && this.question(rule).waived?.[node] ? 'waived' : state;
  }

  stateOf(node: number): VerificationState {
    return this.allStates()[node]!;
  }

  /** Verification state by node: of requirements from evidence, of test cases from their own latest result. */
  allStates(): readonly VerificationState[] {
    return this.verifying.states();
  }

  /** How many tests count for each node. */
  testCounts(): Uint32Array {
    return this.verifying.testCounts();
  }

  verification(node: number): VerificationReading {
    return this.verifying.read(node);
  }

  /** For each node: whether a live link reaches it, and whether a suspect one does. */
  linkMarks(): LinkMarks {
    return this.links.marks();
  }

  /** Items of these kinds that are present and no headings, as nodes in ascending order. */
  nodesOfKinds(kinds: readonly string[]): readonly number[] {
    return this.kinds.of(kinds);
  }

  linkKindIndex(id: string): number {
    return this.scheme.linkKinds.findIndex((kind) => kind.id === id);
  }

  /** What rules need to know of the items. */
  coverageItems(): CoverageItems {
    const waivedBy = new Map<string, Set<string>>();
    const waived = (rule: string) => {
      if (!waivedBy.has(rule)) waivedBy.set(rule, this.waivedItems(rule));
      return waivedBy.get(rule)!;
    };
    return {
      count: this.items.length,
      kindOf: (node) => this.items[node]!.kind,
      isPresent: (node) => this.isPresent(node),
      isHeading: (node) => this.items[node]!.heading || findKind(this.scheme, this.items[node]!.kind)?.informative === true,
      fieldOf: (node, field) => this.fields.find(field, this.items[node]!.id),
      isWaived: (node, rule) => waived(rule).has(this.items[node]!.id),
    };
  }

  /** Of each end of a link that came to say something else since the link was confirmed: the changes in which it did, and up to which it was known. */
  outdatedEnds(link: number): ReturnType<LinkTable['outdated']> {
    return this.links.outdated(link);
  }

  /** What another meaning of some items would make of verification states, by node; those that stay are left out. */
  statesIfChanged(nodes: readonly number[]): Map<number, VerificationState> {
    return this.verifying.statesIfChanged(nodes);
  }

  linkUsage(link: number): LinkUsage | undefined {
    return this.links.usageOf(link);
  }

  /** Whether a waiver holds today. */
  isActive(waiver: WaiverValue): boolean {
    return !waiver.withdrawn && (waiver.until === null || waiver.until >= this.day);
  }

  /** Another day: what depends on it is computed anew. */
  beginDay(day: string): void {
    this.day = day;
    const nodes = new Set([...this.waivers.values()].flatMap(({ until, itemId }) => (until === null ? [] : [this.nodeOf.get(itemId)!])));
    if (nodes.size === 0) return;
    this.rules.followNodes([...nodes]);
    this.verifying.followNodes([...nodes]);
    this.verifying.refresh(nodes);
  }

  /** Ids of the items with an active waiver of a rule. */
  waivedItems(rule: string): Set<string> {
    return new Set(
      [...this.waivers.values()].filter((waiver) => waiver.finding === null && waiver.rule === rule && this.isActive(waiver)).map((waiver) => waiver.itemId),
    );
  }

  private layerOf(collection: CollectionValue): number {
    const layer = findKind(this.scheme, collection.kind)?.layer;
    return this.scheme.layers.findIndex((one) => one.id === layer);
  }

  /** Returns its node. */
  private applyItem(row: ItemValue): number {
    const known = this.nodeOf.get(row.id);
    const node = known ?? this.graph.addNode();
    if (node !== row.node) throw new Error(`${row.reference} is node ${row.node} in the database and ${node} in memory`);
    const before = this.items[node];
    const { id, collectionId, kind, reference, title, heading, parentId, rank, withdrawn, meaningSeq, revision, bindings } = row;
    if (before && before.reference !== reference) this.byReference.delete(before.reference.toLowerCase());
    this.items[node] = { id, collectionId, kind, reference, title, heading, parentId, rank, withdrawn, meaningSeq, revision, bindings, node };
    this.nodeOf.set(id, node);
    this.byReference.set(reference.toLowerCase(), node);
    this.lastNumbers?.see(reference);
    this.fields.follow(id, row.fields);
    this.foundFields.follow(this.scheme, id, kind, row.fields);
    if (before && before.meaningSeq !== meaningSeq) for (const link of this.links.followMeaning(node)) this.rules.follow({ link, move: 'suspicion' });
    this.order.follow(before, node);
    this.kinds.follow(before, node);
    return node;
  }

  /** Number of the clause that an item came from, where a recipe put it into a field; empty where none is known. */
  clauseOf(node: number): string {
    return this.fields.clauseOf(this.items[node]!.id);
  }

  /** Whether any item has the number of a clause. */
  get hasClauses(): boolean {
    return this.fields.hasClauses;
  }

  private applyCollection(row: CollectionValue): void {
    this.collections = [...this.collections.filter((one) => one.id !== row.id), row];
  }

  private applyLink(row: LinkValue): void {
    for (const move of this.links.apply(row, this.nodeOf.get(row.fromId)!, this.nodeOf.get(row.toId)!, this.linkKindIndex(row.kind))) this.rules.follow(move);
  }
}
