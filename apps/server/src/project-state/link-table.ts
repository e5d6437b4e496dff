import { TraceGraph } from '@coomb/core';
import type { LinkRow } from '../ledger/change.js';
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
  /** 1 for each node that a live link reaches. */
  linked: Uint8Array;
  /** 1 for each node at the end of a suspect link. */
  suspect: Uint8Array;
  suspectLinks: number;
}

/** Links of a project in memory: the trace graph, who each link is, and at which meaning of its ends it was last confirmed. */
export class LinkTable {
  readonly graph: TraceGraph;
  readonly ids: LinkIds;
  private readonly fromSeq: number[];
  private readonly toSeq: number[];
  private readonly inUsage = new Map<number, LinkUsage>();
  private marksNow: LinkMarks | undefined;

  constructor(
    nodes: number,
    links: LightLinks,
    private readonly meaningOf: (node: number) => number,
  ) {
    this.ids = new LinkIds(links.id);
    this.fromSeq = Array.from(links.fromSeq);
    this.toSeq = Array.from(links.toSeq);
    this.graph = TraceGraph.build({ nodes, from: links.from, to: links.to, kind: links.kind });
    for (let link = 0; link < links.from.length; link++) if (this.isOutdated(link)) this.graph.setSuspect(link, true);
    for (const [id, usage] of links.inUsage) this.inUsage.set(this.ids.find(id)!, usage);
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

  /** Follows a link's row; says what that did to the graph. */
  apply(row: LinkRow, from: number, to: number, kind: number): LinkMove {
    this.marksNow = undefined;
    const known = this.ids.find(row.id);
    if (known === undefined && row.withdrawn) return undefined;
    const link = known ?? this.graph.addLink(from, to, kind);
    if (known === undefined) this.ids.add(row.id);
    this.followUsage(link, row);
    this.fromSeq[link] = row.fromSeq;
    this.toSeq[link] = row.toSeq;
    const wasAlive = known !== undefined && this.graph.isAlive(link);
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
    this.marksNow = undefined;
    const moved: number[] = [];
    for (const direction of ['out', 'in'] as const)
      this.graph.forEachLink(node, direction, (link) => {
        if (this.followSuspicion(link)) moved.push(link);
      });
    return moved;
  }

  /** Which nodes have live links to present items, and suspect ones. One pass over the links, kept until a change. */
  marks(isPresent: (node: number) => boolean): LinkMarks {
    if (this.marksNow) return this.marksNow;
    const { graph } = this;
    const present = Uint8Array.from({ length: graph.nodes }, (_, node) => Number(isPresent(node)));
    const marks: LinkMarks = { linked: new Uint8Array(graph.nodes), suspect: new Uint8Array(graph.nodes), suspectLinks: 0 };
    for (let link = 0; link < graph.links; link++) {
      const [from, to] = [graph.from[link]!, graph.to[link]!];
      if (!graph.isAlive(link) || !present[from] || !present[to]) continue;
      marks.linked[from] = marks.linked[to] = 1;
      if (!graph.isSuspect(link)) continue;
      marks.suspect[from] = marks.suspect[to] = 1;
      marks.suspectLinks++;
    }
    this.marksNow = marks;
    return marks;
  }

  forgetMarks(): void {
    this.marksNow = undefined;
  }

  /** Whether any link that lives holds in one usage only. */
  get hasUsages(): boolean {
    for (const link of this.inUsage.keys()) if (this.graph.isAlive(link)) return true;
    return false;
  }

  usageOf(link: number): LinkUsage | undefined {
    return this.inUsage.get(link);
  }

  private followUsage(link: number, { fromUsage = null, toUsage = null }: LinkRow): void {
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
    return this.fromSeq[link] !== this.meaningOf(this.graph.from[link]!) || this.toSeq[link] !== this.meaningOf(this.graph.to[link]!);
  }
}
