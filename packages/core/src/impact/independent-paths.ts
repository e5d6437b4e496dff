/** Edges between nodes that are numbered from 0; several between the same two count once. */
export interface FlowEdges {
  nodes: number;
  from: readonly number[];
  to: readonly number[];
}

/**
 * Counts paths that share no node on the way (Menger 1927), by unit flow through split nodes (Ford and Fulkerson 1956).
 * Built once, asked for as many ends as one likes: each answer takes time in edges times its number of paths.
 */
export class IndependentPaths {
  /** Of each arc: where it leads, and whether it is used up in this count. Arc i ^ 1 leads back. */
  private readonly head: number[] = [];
  private readonly arcs: number[][];
  private used: Uint8Array;
  private readonly isSource: Uint8Array;

  constructor(
    { nodes, from, to }: FlowEdges,
    private readonly sources: readonly number[],
  ) {
    this.arcs = Array.from({ length: nodes * 2 }, () => []);
    this.isSource = new Uint8Array(nodes);
    for (const source of sources) this.isSource[source] = 1;
    // A node is entered at 2n and left at 2n + 1.
    for (let node = 0; node < nodes; node++) this.addArc(node * 2, node * 2 + 1);
    const seen = new Set<number>();
    for (let edge = 0; edge < from.length; edge++) {
      const [a, b] = [from[edge]!, to[edge]!];
      // Nothing on the way to anywhere goes through what it began at.
      if (a === b || this.isSource[b] || seen.has(a * nodes + b)) continue;
      seen.add(a * nodes + b);
      this.addArc(a * 2 + 1, b * 2);
    }
    this.used = new Uint8Array(this.head.length);
  }

  /** Paths from the sources to a node that share no node but their ends. */
  count(target: number): number {
    if (this.isSource[target]) return 0;
    const used = (this.used = new Uint8Array(this.head.length));
    for (let at = 1; at < used.length; at += 2) used[at] = 1;
    let paths = 0;
    while (this.augment(target * 2)) paths++;
    return paths;
  }

  private addArc(from: number, to: number): void {
    this.arcs[from]!.push(this.head.push(to) - 1);
    this.arcs[to]!.push(this.head.push(from) - 1);
  }

  /** Finds one more path by breadth-first search, and uses it up. */
  private augment(goal: number): boolean {
    const { head, arcs, used } = this;
    const came = new Map<number, number>();
    const queue = this.sources.map((source) => source * 2 + 1);
    for (const start of queue) came.set(start, -1);
    for (let at = 0; at < queue.length && !came.has(goal); at++)
      for (const arc of arcs[queue[at]!]!) {
        const next = head[arc]!;
        if (used[arc] || came.has(next)) continue;
        came.set(next, arc);
        queue.push(next);
      }
    if (!came.has(goal)) return false;
    for (let place = goal; came.get(place) !== -1; place = head[came.get(place)! ^ 1]!) {
      const arc = came.get(place)!;
      used[arc] = 1;
      used[arc ^ 1] = 0;
    }
    return true;
  }
}
