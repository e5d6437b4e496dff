import { TraceGraph } from '@coomb/core';
import type { LinkValue } from '../ledger/change.js';
import { LinkIds } from './link-ids.js';

/** A project's live links as loaded: columns, with sixteen bytes per id. */
export interface LightLinks {
  id: Uint8Array;
  from: Uint32Array;
  to: Uint32Array;
  kind: Uint8Array;
  fromSeq: Uint32Array;
  toSeq: Uint32Array;
  /** Usages by link, of those that hold in one usage of an end only. */
  inUsage: ReadonlyMap<string, LinkUsage>;
}

/** Ids of the usages in which a link holds at its ends; null where it holds in all. */
export interface LinkUsage {
  from: string | null;
  to: string | null;
}

/** What became of a link when its row changed. */
export type LinkMove = { link: number; move: 'added' | 'removed' | 'suspicion' | 'kind' } | undefined;

export interface LinkMarks {
  /** Live links at each node, to present items. */
  linked: Uint32Array;
  /** Suspect ones among them. */
  suspect: Uint32Array;
  suspectLinks: number;
}

/** Links of a project in memory: the trace graph, who each link is, and at which meaning of its ends it was last confirmed. */
export class LinkTable {
  readonly graph: TraceGraph;
  readonly ids: LinkIds;
  private fromSeq: Uint32Array;
  private toSeq: Uint32Array;
  private readonly inUsage = new Map<number, LinkUsage>();
  private marksNow: LinkMarks | undefined;
  /** Which nodes were present when their links were counted. */
  private counted = new Uint8Array(0);

  constructor(
    nodes: number,
    links: LightLinks,
    private readonly items: { meaningOf: (node: number, usage: string | null | undefined) => number; isPresent: (node: number) => boolean },
  ) {
    this.ids = new LinkIds(links.id);
    this.fromSeq = links.fromSeq;
    this.toSeq = links.toSeq;
    this.graph = TraceGraph.build({ nodes, from: links.from, to: links.to, kind: links.kind });
    for (const [id, usage] of links.inUsage) this.inUsage.set(this.ids.find(id)!, usage);
    for (let link = 0; link < links.from.length; link++) if (this.isOutdated(link)) this.graph.setSuspect(link, true);
  }

  /** The live links as they could be loaded now. */
  snapshot(): LightLinks {
    const { graph } = this;
    let count = 0;
    for (let link = 0; link < graph.links; link++) if (graph.isAlive(link)) count++;
    const numbers = () => new Uint32Array(count);
    const id = Buffer.alloc(count * 16);
    const columns = { from: numbers(), to: numbers(), kind: new Uint8Array(count), fromSeq: numbers(), toSeq: numbers() };
    let at = 0;
    for (let link = 0; link < graph.links; link++) {
      if (!graph.isAlive(link)) continue;
      this.ids.copy(link, id, at * 16);
      columns.from[at] = graph.from[link]!;
      columns.to[at] = graph.to[link]!;
      columns.kind[at] = graph.kind[link]!;
      columns.fromSeq[at] = this.fromSeq[link]!;
      columns.toSeq[at++] = this.toSeq[link]!;
    }
    const inUsage = new Map([...this.inUsage].flatMap(([link, usage]) => (graph.isAlive(link) ? [[this.ids.at(link), usage] as const] : [])));
    return { id, ...columns, inUsage };
  }

  /** Follows a link's row; says what that did to the graph. A link that was hung on another item is another edge of the same id. */
  apply(row: LinkValue, from: number, to: number, kind: number): LinkMove[] {
    const known = this.ids.find(row.id);
    if (known === undefined || (this.graph.from[known] === from && this.graph.to[known] === to)) return [this.follow(known, row, from, to, kind)];
    const left = this.follow(known, { ...row, withdrawn: true }, from, to, this.graph.kind[known]!);
    return [left, this.follow(undefined, row, from, to, kind)];
  }

  private follow(known: number | undefined, row: LinkValue, from: number, to: number, kind: number): LinkMove {
    if (known === undefined && row.withdrawn) return undefined;
    if (known !== undefined) this.count(known, -1);
    const link = known ?? this.graph.addLink(from, to, kind);
    if (known === undefined) this.ids.add(row.id);
    const move = this.change(row, link, kind, known !== undefined);
    this.count(link, 1);
    return move;
  }

  private change(row: LinkValue, link: number, kind: number, isKnown: boolean): LinkMove {
    this.followUsage(link, row);
    if (link >= this.fromSeq.length) [this.fromSeq, this.toSeq] = [withRoom(this.fromSeq), withRoom(this.toSeq)];
    this.fromSeq[link] = row.fromSeq;
    this.toSeq[link] = row.toSeq;
    const wasAlive = isKnown && this.graph.isAlive(link);
    const wasOther = !row.withdrawn && this.graph.kind[link] !== kind;
    if (wasOther) this.graph.setKind(link, kind);
    if (row.withdrawn) {
      if (!wasAlive) return undefined;
      this.graph.removeLink(link);
      return { link, move: 'removed' };
    }
    if (wasAlive) {
      const moved = this.followSuspicion(link);
      return wasOther ? { link, move: 'kind' } : moved;
    }
    this.graph.restoreLink(link);
    this.graph.setSuspect(link, this.isOutdated(link));
    return { link, move: 'added' };
  }

  /** Follows a changed meaning of a node; gives the links that became suspect, or no longer are. */
  followMeaning(node: number): number[] {
    const moved: number[] = [];
    for (const direction of ['out', 'in'] as const)
      this.graph.forEachLink(node, direction, (link) => {
        this.count(link, -1);
        if (this.followSuspicion(link)) moved.push(link);
        this.count(link, 1);
      });
    return moved;
  }

  /** How many live links to present items each node has, and how many suspect ones. Counted once, then following every change. */
  marks(): LinkMarks {
    if (this.marksNow) return this.marksNow;
    const { graph } = this;
    this.marksNow = { linked: new Uint32Array(graph.nodes), suspect: new Uint32Array(graph.nodes), suspectLinks: 0 };
    this.counted = Uint8Array.from({ length: graph.nodes }, (_, node) => Number(this.items.isPresent(node)));
    for (let link = 0; link < graph.links; link++) this.count(link, 1);
    return this.marksNow;
  }

  forgetMarks(): void {
    this.marksNow = undefined;
  }

  /** Follows items that are new, withdrawn or restored: their links count, or do not, at both ends. */
  presenceChanged(nodes: readonly number[]): void {
    const marks = this.marksNow;
    if (!marks) return;
    if (marks.linked.length < this.graph.nodes) {
      const room = Math.ceil(this.graph.nodes * 1.1) + 16;
      const grow = <A extends Uint32Array | Uint8Array>(column: A): A => {
        const larger = new (column.constructor as new (length: number) => A)(room);
        larger.set(column);
        return larger;
      };
      marks.linked = grow(marks.linked);
      marks.suspect = grow(marks.suspect);
      this.counted = grow(this.counted);
    }
    for (const node of nodes) {
      const present = Number(this.items.isPresent(node));
      if (this.counted[node] === present) continue;
      const links = [...this.graph.findLinks(node, 'out'), ...this.graph.findLinks(node, 'in')];
      for (const link of links) this.count(link, -1);
      this.counted[node] = present;
      for (const link of links) this.count(link, 1);
    }
  }

  /** Adds what a link counts for to the marks, or takes it away: nothing while it is dead, or one of its ends is not there. */
  private count(link: number, by: 1 | -1): void {
    const { graph, marksNow: marks } = this;
    const [from, to] = [graph.from[link]!, graph.to[link]!];
    if (!marks || !graph.isAlive(link) || !this.counted[from] || !this.counted[to]) return;
    marks.linked[from]! += by;
    marks.linked[to]! += by;
    if (!graph.isSuspect(link)) return;
    marks.suspect[from]! += by;
    marks.suspect[to]! += by;
    marks.suspectLinks += by;
  }

  /** Of each end whose meaning is another than was last confirmed: the number of its newest change, and of the one that was confirmed. */
  outdated(link: number): Record<'from' | 'to', { now: number; then: number } | undefined> {
    const usage = this.inUsage.get(link);
    const { graph, items } = this;
    const end = (node: number, use: string | null | undefined, then: number) => {
      const now = items.meaningOf(node, use);
      return now === then ? undefined : { now, then };
    };
    return { from: end(graph.from[link]!, usage?.from, this.fromSeq[link]!), to: end(graph.to[link]!, usage?.to, this.toSeq[link]!) };
  }

  /** Whether any link that lives holds in one usage only. */
  get hasUsages(): boolean {
    for (const link of this.inUsage.keys()) if (this.graph.isAlive(link)) return true;
    return false;
  }

  usageOf(link: number): LinkUsage | undefined {
    return this.inUsage.get(link);
  }

  private followUsage(link: number, { fromUsage = null, toUsage = null }: LinkValue): void {
    if (fromUsage === null && toUsage === null) this.inUsage.delete(link);
    else this.inUsage.set(link, { from: fromUsage, to: toUsage });
  }

  private followSuspicion(link: number): LinkMove {
    const suspect = this.isOutdated(link);
    if (!this.graph.isAlive(link) || suspect === this.graph.isSuspect(link)) return undefined;
    this.graph.setSuspect(link, suspect);
    return { link, move: 'suspicion' };
  }

  private isOutdated(link: number): boolean {
    const usage = this.inUsage.get(link);
    const { from, to } = this.graph;
    return this.fromSeq[link] !== this.items.meaningOf(from[link]!, usage?.from) || this.toSeq[link] !== this.items.meaningOf(to[link]!, usage?.to);
  }
}

/** The same column with room for links to come. */
function withRoom(column: Uint32Array): Uint32Array {
  const larger = new Uint32Array(Math.ceil(column.length * 1.25) + 64);
  larger.set(column);
  return larger;
}
