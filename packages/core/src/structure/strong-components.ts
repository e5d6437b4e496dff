/** A directed graph as a list per node: `targets[start[node]]` up to `start[node + 1]`, with the edge that leads there. */
export interface DirectedRows {
  start: Uint32Array;
  target: Uint32Array;
}

/**
 * Strongly connected components (Tarjan 1972), without recursion. Gives the number of its component for each node; every component that an edge
 * leads to from another has a lower number than that other.
 */
export function findStrongComponents(nodes: number, { start, target }: DirectedRows): { of: Int32Array; count: number } {
  const of = new Int32Array(nodes).fill(-1);
  const index = new Int32Array(nodes).fill(-1);
  const low = new Int32Array(nodes);
  const at = start.slice(0, nodes);
  const open: number[] = [];
  const isOpen = new Uint8Array(nodes);
  let next = 0;
  let count = 0;
  const path: number[] = [];
  const enter = (node: number) => {
    index[node] = low[node] = next++;
    open.push(node);
    isOpen[node] = 1;
    path.push(node);
  };
  for (let root = 0; root < nodes; root++) {
    if (index[root] !== -1) continue;
    enter(root);
    while (path.length > 0) {
      const node = path.at(-1)!;
      if (at[node]! < start[node + 1]!) {
        const other = target[at[node]!++]!;
        if (index[other] === -1) enter(other);
        else if (isOpen[other]) low[node] = Math.min(low[node]!, index[other]!);
        continue;
      }
      path.pop();
      const above = path.at(-1);
      if (above !== undefined) low[above] = Math.min(low[above]!, low[node]!);
      if (low[node] !== index[node]) continue;
      for (;;) {
        const member = open.pop()!;
        isOpen[member] = 0;
        of[member] = count;
        if (member === node) break;
      }
      count++;
    }
  }
  return { of, count };
}

/** Rows of a directed graph from edges; `edges[i]` leads from `from[i]` to `to[i]`. `edge` says which edge each target is reached by. */
export function buildDirectedRows(nodes: number, from: ArrayLike<number>, to: ArrayLike<number>): DirectedRows & { edge: Uint32Array } {
  const start = new Uint32Array(nodes + 1);
  for (let edge = 0; edge < from.length; edge++) start[from[edge]! + 1]!++;
  for (let node = 0; node < nodes; node++) start[node + 1]! += start[node]!;
  const fill = start.slice();
  const rows = { start, target: new Uint32Array(from.length), edge: new Uint32Array(from.length) };
  for (let edge = 0; edge < from.length; edge++) {
    const place = fill[from[edge]!]!++;
    rows.target[place] = to[edge]!;
    rows.edge[place] = edge;
  }
  return rows;
}
