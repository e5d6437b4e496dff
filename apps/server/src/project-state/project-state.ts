import type { Brief } from '@coomb/contract';
import type {
  CoverageItems,
  CoverageQuestion,
  CoverageRule,
  CoverageState,
  FieldFindings,
  CoverageReading,
  Scheme,
  TraceGraph,
  VerificationState,
} from '@coomb/core';
import type { Change, ItemValue, LinkValue, UsageValue } from '../ledger/change.js';
import { asideEntities } from '../ledger/entities.js';
import { coverageItemsOf } from './coverage-items.js';
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
import { ProjectContents } from './project-contents.js';
import { ProjectScheme } from './project-scheme.js';
import { ProjectWaivers } from './project-waivers.js';
import { ruleFieldsOf } from './scheme-parts.js';
import { changesComposition, findTouched, invalidates, sourcesMore } from './what-changes.js';

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
  readonly schemeNow: ProjectScheme;
  seq: number;
  /** Number of the last change of what reports tell of: publishing one makes no other old. */
  contentSeq: number;
  /** The day that it is, for what holds until one: 2026-11-27. */
  day: string;
  readonly contents: ProjectContents;
  archived: boolean;
  out: boolean;
  readonly items: LightItem[];
  readonly nodeOf: Map<string, number>;
  readonly byReference: NodesByReference;
  readonly waivers: ProjectWaivers;
  readonly usages: ProjectUsages;
  private readonly useMeanings: UseMeanings;
  latest: Map<string, TestResult>;
  sources: number;
  private readonly fields: FieldValues;
  private readonly foundFields: FoundFields;
  private lastNumbers: LastNumbers | undefined;
  private readonly links: LinkTable;
  private readonly rules: ProjectCoverage;
  /** States by evidence, and what they rest on. */
  readonly verifying: ProjectVerification;
  private readonly order: FollowedOrder;
  private readonly kinds: NodesByKind;
  private readonly followers = new Set<(changes: readonly Change[]) => void>();

  constructor(parts: ProjectParts) {
    this.id = parts.id;
    this.life = parts.life;
    this.name = parts.name;
    this.createdAt = parts.createdAt;
    this.schemeNow = new ProjectScheme(parts.schemeParts);
    this.seq = parts.seq;
    this.contentSeq = parts.contentSeq;
    this.day = parts.day;
    this.contents = new ProjectContents(() => this.scheme, parts.collections, parts.sets);
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
    this.waivers = new ProjectWaivers(parts.waivers, () => this.day);
    this.useMeanings = new UseMeanings(parts.usages);
    this.links = new LinkTable(parts.items.length, parts.links, {
      meaningOf: (node, usage) => this.useMeanings.newest(this.items[node]!, this.useMeanings.pathOf(usage)),
      isPresent: (node) => !this.items[node]!.withdrawn,
    });
    const { items, nodeOf, links, graph } = this;
    this.kinds = new NodesByKind(items);
    this.order = new FollowedOrder({ items, nodeOf, collections: () => this.contents.liveCollections() }, parts.known?.order);
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
      waived: (rule) => this.waivers.itemsWaived(rule),
    });
  }

  /** What another state can be made of that is as this one is now, and goes its own way. */
  snapshot(): ProjectParts {
    const items = [...this.items];
    return {
      id: this.id,
      name: this.name,
      createdAt: this.createdAt,
      schemeParts: this.schemeNow.parts(),
      seq: this.seq,
      contentSeq: this.contentSeq,
      life: this.life,
      day: this.day,
      collections: this.contents.collections,
      sets: this.contents.sets,
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

  get scheme(): Scheme {
    return this.schemeNow.now;
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
    this.schemeNow.apply(changes);
    for (const change of changes) if (change.entity === 'source') this.fields.followRecipe(change.after.recipe);
    const moved = new Set<number>();
    let anew = false;
    // Many rows one by one take longer than all of them at once.
    if (changes.length > MOST_FOLLOWED && changes.some((change) => change.entity === 'item' && !this.nodeOf.has(change.after.id))) this.order.forget();
    for (const change of changes) {
      if (change.entity === 'item') moved.add(this.applyItem(change.after));
      if (change.entity === 'collection') this.contents.applyCollection(change.after);
      this.sources += sourcesMore(change);
      if (change.entity === 'project') ({ name: this.name, archived: this.archived, withdrawn: this.out } = change.after);
      if (change.entity === 'set') this.contents.applySet(change.after);
      if (change.entity === 'usage') this.applyUsage(change.after);
      if (change.entity === 'waiver') {
        this.waivers.apply(change.after);
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
    const reshaped = this.usages.size > 0 && changes.some((change) => changesComposition(change, this));
    for (const change of changes) if (change.entity === 'link') this.applyLink(change.after);
    if (reshaped) {
      this.usages.forget();
      this.rules.forget();
    }
    if (anew || changes.length > MOST_FOLLOWED) this.verifying.forgetStates();
    else this.verifying.refresh(findTouched(changes, this.nodeOf));
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

  /** Fields that rules filter by and whose values memory does not hold yet. */
  findUnknownFields(scheme = this.scheme): string[] {
    return ruleFieldsOf(scheme).filter((field) => !this.fields.holds(field));
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

  /** Items (without sections) and links that are present. */
  count(): { items: number; links: number } {
    let items = 0;
    for (const { withdrawn, heading } of this.items) if (!withdrawn && !heading) items++;
    let links = 0;
    for (let link = 0; link < this.graph.links; link++) if (this.graph.isAlive(link)) links++;
    return { items, links };
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
    return coverageItemsOf(this, this.fields);
  }

  /** Of each end of a link that came to say something else since the link was confirmed: the changes in which it did, and up to which it was known. */
  outdatedEnds(link: number): ReturnType<LinkTable['outdated']> {
    return this.links.outdated(link);
  }

  linkUsage(link: number): LinkUsage | undefined {
    return this.links.usageOf(link);
  }

  /** Another day: what depends on it is computed anew. */
  beginDay(day: string): void {
    this.day = day;
    const nodes = new Set(this.waivers.itemsUntilADay().map((item) => this.nodeOf.get(item)!));
    if (nodes.size === 0) return;
    this.rules.followNodes([...nodes]);
    this.verifying.followNodes([...nodes]);
    this.verifying.refresh(nodes);
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

  private applyLink(row: LinkValue): void {
    for (const move of this.links.apply(row, this.nodeOf.get(row.fromId)!, this.nodeOf.get(row.toId)!, this.linkKindIndex(row.kind))) this.rules.follow(move);
  }
}
