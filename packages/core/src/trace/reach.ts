import type { Step, TraceGraph } from './graph.js';
import { mayGoOn, type UsageEnds } from './usages.js';

export interface Reached {
  node: number;
  /** Links from the root. */
  distance: number;
  /** The link this node was first reached by, and the node before it; -1 at the root. */
  link: number;
  before: number;
  /** Usage of the item in which it was reached; 0 for the item wherever it is used. */
  usage: number;
  /** Place of the one before in the list of what was reached; -1 at the root. */
  from: number;
}

export interface ReachOptions {
  steps: readonly Step[];
  maxDistance?: number;
  /** Leave suspect links out. */
  cleanOnly?: boolean;
  /** Nodes that may be entered; all when left out. */
  mayEnter?: (node: number) => boolean;
  /** Which links hold in one usage only: a path goes on from an item in the usage in which it came to it. */
  usages?: UsageEnds;
  /** Usage of the root that is asked about; 0 for the item wherever it is used. */
  usage?: number;
}

/**
 * Everything that can be reached from a root, or from several, by the given steps, nearest first, the roots included.
 * Breadth-first search: the chain of `before` is a shortest path.
 */
export function buildReach(graph: TraceGraph, roots: number | readonly number[], options: ReachOptions): Reached[] {
  const { steps, maxDistance = Number.POSITIVE_INFINITY, cleanOnly = false, mayEnter, usages, usage: begin = 0 } = options;
  const outMask = maskOf(steps, 'out');
  const inMask = maskOf(steps, 'in');
  // Whoever came to an item wherever it is used has been in all of its usages.
  const seen = new Set<number>(typeof roots === 'number' ? [roots] : roots);
  const seenIn = new Map<number, Set<number>>();
  const reached = [...seen].map((node): Reached => ({ node, distance: 0, link: -1, before: -1, usage: begin, from: -1 }));
  for (let at = 0; at < reached.length; at++) {
    const { node, distance, usage: came } = reached[at]!;
    if (distance >= maxDistance) continue;
    const visit = (mask: Uint8Array) => (link: number, other: number) => {
      if (!mask[graph.kind[link]!] || seen.has(other)) return;
      if (cleanOnly && graph.isSuspect(link)) return;
      if (mayEnter && !mayEnter(other)) return;
      const usage = usages ? usages.usageAt(link, other) : 0;
      if (usages && !mayGoOn(came, usages.usageAt(link, node), usages)) return;
      if (usage === 0) seen.add(other);
      else {
        const known = seenIn.get(other);
        if (known?.has(usage)) return;
        if (known) known.add(usage);
        else seenIn.set(other, new Set([usage]));
      }
      reached.push({ node: other, distance: distance + 1, link, before: node, usage, from: at });
    };
    graph.forEachLink(node, 'out', visit(outMask));
    graph.forEachLink(node, 'in', visit(inMask));
  }
  return reached;
}

/** The nodes and links from the root to `target`, or undefined when it was not reached. */
export function findPath(reached: readonly Reached[], target: number): Reached[] | undefined {
  const path: Reached[] = [];
  for (let entry = reached.find(({ node }) => node === target); entry; entry = reached[entry.from]) path.push(entry);
  return path.length > 0 ? path.reverse() : undefined;
}

function maskOf(steps: readonly Step[], direction: 'in' | 'out'): Uint8Array {
  const mask = new Uint8Array(256);
  for (const step of steps) if (step.direction === direction) mask[step.kind] = 1;
  return mask;
}
