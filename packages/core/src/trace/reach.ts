import type { Step, TraceGraph } from './graph.js';

export interface Reached {
  node: number;
  /** Links from the root. */
  distance: number;
  /** The link this node was first reached by, and the node before it; -1 at the root. */
  link: number;
  before: number;
}

export interface ReachOptions {
  steps: readonly Step[];
  maxDistance?: number;
  /** Leave suspect links out. */
  cleanOnly?: boolean;
  /** Nodes that may be entered; all when left out. */
  mayEnter?: (node: number) => boolean;
}

/**
 * Everything that can be reached from `root` by the given steps, nearest first, the root included.
 * Breadth-first search: the chain of `before` is a shortest path.
 */
export function buildReach(graph: TraceGraph, root: number, options: ReachOptions): Reached[] {
  const { steps, maxDistance = Number.POSITIVE_INFINITY, cleanOnly = false, mayEnter } = options;
  const outMask = maskOf(steps, 'out');
  const inMask = maskOf(steps, 'in');
  const seen = new Set<number>([root]);
  const reached: Reached[] = [{ node: root, distance: 0, link: -1, before: -1 }];
  for (let at = 0; at < reached.length; at++) {
    const { node, distance } = reached[at]!;
    if (distance >= maxDistance) continue;
    const visit = (mask: Uint8Array) => (link: number, other: number) => {
      if (!mask[graph.kind[link]!] || seen.has(other)) return;
      if (cleanOnly && graph.isSuspect(link)) return;
      if (mayEnter && !mayEnter(other)) return;
      seen.add(other);
      reached.push({ node: other, distance: distance + 1, link, before: node });
    };
    graph.forEachLink(node, 'out', visit(outMask));
    graph.forEachLink(node, 'in', visit(inMask));
  }
  return reached;
}

/** The nodes and links from the root to `target`, or undefined when it was not reached. */
export function findPath(reached: readonly Reached[], target: number): Reached[] | undefined {
  const byNode = new Map(reached.map((entry) => [entry.node, entry]));
  let at = byNode.get(target);
  if (!at) return undefined;
  const path: Reached[] = [];
  while (at) {
    path.push(at);
    at = at.before < 0 ? undefined : byNode.get(at.before);
  }
  return path.reverse();
}

function maskOf(steps: readonly Step[], direction: 'in' | 'out'): Uint8Array {
  const mask = new Uint8Array(256);
  for (const step of steps) if (step.direction === direction) mask[step.kind] = 1;
  return mask;
}
