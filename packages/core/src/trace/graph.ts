/** Direction of walking: `out` follows links from their `from` end, `in` from their `to` end. */
export type Direction = 'out' | 'in';

/** One way to walk on: a link kind (by index) in one direction. */
export interface Step {
  kind: number;
  direction: Direction;
}

/** Columns a graph is built from. Row i is link i; ends are node indexes below `nodes`. */
export interface LinkColumns {
  nodes: number;
  from: Uint32Array;
  to: Uint32Array;
  kind: Uint8Array;
  /** 1 where the link is suspect; left out when none is. */
  suspect?: Uint8Array;
}

/** Links in the order of their node at one end: which they are, the node at their other end, and their kind, side by side for quick reading. */
export interface LinkRows {
  start: Uint32Array;
  link: Uint32Array;
  other: Uint32Array;
  kind: Uint8Array;
}

export interface SweepRows extends LinkRows {
  nodes: number;
  state: Uint8Array;
  skip: number;
}

const NONE = 0xffffffff;
const DEAD = 1;
const SUSPECT = 2;

function grow<T extends Uint8Array | Uint32Array>(array: T, length: number, fill = 0): T {
  if (array.length >= length) return array;
  const larger = new (array.constructor as new (length: number) => T)(Math.max(length, array.length * 2, 16));
  // Both are arrays of the same sort; the union of sorts hides it.
  larger.set(array as never);
  if (fill) larger.fill(fill, array.length);
  return larger;
}

/**
 * The trace graph of a project in compressed adjacency (Compressed Sparse Row, both directions) on typed arrays.
 * Built once from columns; links added later hang in chains behind the rows, removed ones are marked.
 * Nodes and links are dense indexes; who they are is the caller's knowledge.
 */
export class TraceGraph {
  nodes: number;
  links: number;
  from: Uint32Array;
  to: Uint32Array;
  kind: Uint8Array;
  private state: Uint8Array;
  /** How many links carry a mark: while it is 0, sweeps need not look. */
  private marks = 0;
  private readonly built: { nodes: number; out: LinkRows; in: LinkRows };
  private outHead: Uint32Array;
  private outNext: Uint32Array;
  private inHead: Uint32Array;
  private inNext: Uint32Array;

  private constructor(columns: LinkColumns) {
    const { nodes, from, to, kind, suspect } = columns;
    this.nodes = nodes;
    this.links = from.length;
    this.from = from;
    this.to = to;
    this.kind = kind;
    this.state = new Uint8Array(from.length);
    if (suspect) for (let i = 0; i < from.length; i++) if (suspect[i]) this.state[i] = SUSPECT;
    this.built = { nodes, out: buildRows(from, to, kind, nodes), in: buildRows(to, from, kind, nodes) };
    if (suspect) for (const one of this.state) if (one) this.marks++;
    this.outHead = new Uint32Array(0);
    this.outNext = new Uint32Array(0);
    this.inHead = new Uint32Array(0);
    this.inNext = new Uint32Array(0);
  }

  /** Builds from columns; keeps them (does not copy). Throws RangeError when an end is no node. */
  static build(columns: LinkColumns): TraceGraph {
    const { nodes, from, to, kind } = columns;
    if (from.length !== to.length || from.length !== kind.length) throw new RangeError('Link columns differ in length');
    for (let i = 0; i < from.length; i++) if (from[i]! >= nodes || to[i]! >= nodes) throw new RangeError(`Link ${i} ends outside the ${nodes} nodes`);
    return new TraceGraph(columns);
  }

  /** Adds a node without links; returns its index. */
  addNode(): number {
    return this.nodes++;
  }

  /** Adds a link in place; returns its index. Constant time. */
  addLink(from: number, to: number, kind: number, suspect = false): number {
    if (from >= this.nodes || to >= this.nodes) throw new RangeError(`Link from ${from} to ${to} ends outside the ${this.nodes} nodes`);
    const link = this.links++;
    const built = this.built.out.link.length;
    this.from = grow(this.from, link + 1);
    this.to = grow(this.to, link + 1);
    this.kind = grow(this.kind, link + 1);
    this.state = grow(this.state, link + 1);
    this.outHead = grow(this.outHead, this.nodes, NONE);
    this.inHead = grow(this.inHead, this.nodes, NONE);
    if (link === built) {
      this.outHead.fill(NONE);
      this.inHead.fill(NONE);
    }
    this.outNext = grow(this.outNext, link - built + 1, NONE);
    this.inNext = grow(this.inNext, link - built + 1, NONE);
    this.from[link] = from;
    this.to[link] = to;
    this.kind[link] = kind;
    this.mark(link, suspect ? SUSPECT : 0);
    this.outNext[link - built] = this.outHead[from]!;
    this.outHead[from] = link;
    this.inNext[link - built] = this.inHead[to]!;
    this.inHead[to] = link;
    return link;
  }

  /** Marks a link as gone; walking no longer sees it. */
  removeLink(link: number): void {
    this.mark(link, this.state[link]! | DEAD);
  }

  restoreLink(link: number): void {
    this.mark(link, this.state[link]! & ~DEAD);
  }

  setSuspect(link: number, suspect: boolean): void {
    this.mark(link, suspect ? this.state[link]! | SUSPECT : this.state[link]! & ~SUSPECT);
  }

  /** Gives a link another kind, in place: constant time but for the links at its ends. */
  setKind(link: number, kind: number): void {
    this.kind[link] = kind;
    for (const [rows, node] of [
      [this.built.out, this.from[link]!],
      [this.built.in, this.to[link]!],
    ] as const) {
      if (node >= this.built.nodes) continue;
      for (let i = rows.start[node]!, end = rows.start[node + 1]!; i < end; i++) if (rows.link[i] === link) rows.kind[i] = kind;
    }
  }

  private mark(link: number, state: number): void {
    this.marks += Number(state !== 0) - Number(this.state[link] !== 0);
    this.state[link] = state;
  }

  isAlive(link: number): boolean {
    return (this.state[link]! & DEAD) === 0;
  }

  isSuspect(link: number): boolean {
    return (this.state[link]! & SUSPECT) !== 0;
  }

  /** Calls `visit` with each live link at `node` in one direction, and the node at its other end. */
  forEachLink(node: number, direction: Direction, visit: (link: number, other: number) => void): void {
    if (node < this.built.nodes) {
      const { start, link, other } = direction === 'out' ? this.built.out : this.built.in;
      for (let i = start[node]!, end = start[node + 1]!; i < end; i++) if (!(this.state[link[i]!]! & DEAD)) visit(link[i]!, other[i]!);
    }
    this.forEachAdded(node, direction, visit);
  }

  /**
   * The same rows without a call per link, for sweeps over the whole graph: places of `node` are `start[node]` up to `start[node + 1]`.
   * Links added since building are not among them: see `forEachAdded`. A link is passed over when `state[link] & skip`; no need to look when `skip` is 0.
   */
  sweepRows(direction: Direction, cleanOnly: boolean): SweepRows {
    const rows = direction === 'out' ? this.built.out : this.built.in;
    return { ...rows, nodes: this.built.nodes, state: this.state, skip: this.marks === 0 ? 0 : cleanOnly ? DEAD | SUSPECT : DEAD };
  }

  /** Links at `node` that were added after building. */
  forEachAdded(node: number, direction: Direction, visit: (link: number, other: number) => void): void {
    const out = direction === 'out';
    const head = out ? this.outHead : this.inHead;
    if (node >= head.length) return;
    const next = out ? this.outNext : this.inNext;
    const other = out ? this.to : this.from;
    for (let link = head[node]!; link !== NONE; link = next[link - this.built.out.link.length]!) if (!(this.state[link]! & DEAD)) visit(link, other[link]!);
  }

  hasSuspect(): boolean {
    if (this.marks === 0) return false;
    for (let link = 0; link < this.links; link++) if ((this.state[link]! & (DEAD | SUSPECT)) === SUSPECT) return true;
    return false;
  }

  /** Live links at a node in one direction, as indexes, optionally of one kind only. */
  findLinks(node: number, direction: Direction, kind?: number): number[] {
    const found: number[] = [];
    this.forEachLink(node, direction, (link) => {
      if (kind === undefined || this.kind[link] === kind) found.push(link);
    });
    return found;
  }
}

function buildRows(ends: Uint32Array, others: Uint32Array, kinds: Uint8Array, nodes: number): LinkRows {
  const start = new Uint32Array(nodes + 1);
  for (let i = 0; i < ends.length; i++) start[ends[i]! + 1]!++;
  for (let i = 0; i < nodes; i++) start[i + 1]! += start[i]!;
  const fill = start.slice();
  const rows: LinkRows = { start, link: new Uint32Array(ends.length), other: new Uint32Array(ends.length), kind: new Uint8Array(ends.length) };
  for (let i = 0; i < ends.length; i++) {
    const at = fill[ends[i]!]!++;
    rows.link[at] = i;
    rows.other[at] = others[i]!;
    rows.kind[at] = kinds[i]!;
  }
  return rows;
}
