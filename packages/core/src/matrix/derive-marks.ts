import type { Direction, TraceGraph } from '../trace/graph.js';
import { mayGoOn, type UsageEnds } from '../trace/usages.js';

/** One step of a way through the graph: along links of a kind (by index) in one direction, to nodes that pass. */
export interface MarkStep {
  kind: number;
  direction: Direction;
  isEnd?: ((node: number) => boolean) | undefined;
}

/** A node that a way leads to, whether one of the paths there is without a suspect link, and the usages of both in which it holds only; 0 for all. */
export type VisitEnd = (end: number, isClean: boolean, startUsage: number, endUsage: number) => void;

interface Place {
  node: number;
  /** The usage it was come to in, and that of the start which was left by; 0 for any. */
  usage: number;
  left: number;
  isClean: boolean;
}

/**
 * Follows a way from a node; each end is visited once, or once for each pair of usages. Where links hold in one usage only, a path goes on from an item
 * only in the usage that it came to. Items for which `isPresent` does not hold are passed over.
 */
export function followSteps(
  graph: TraceGraph,
  start: number,
  steps: readonly MarkStep[],
  isPresent: (node: number) => boolean,
  usages: UsageEnds | undefined,
  visit: VisitEnd,
): void {
  let at = new Map<string | number, Place>([[start, { node: start, usage: 0, left: 0, isClean: true }]]);
  steps.forEach(({ kind, direction, isEnd }, step) => {
    const next: typeof at = new Map();
    for (const { node, usage, left, isClean } of at.values())
      graph.forEachLink(node, direction, (link, other) => {
        if (graph.kind[link] !== kind || !isPresent(other) || (isEnd && !isEnd(other))) return;
        if (usages && !mayGoOn(usage, usages.usageAt(link, node), usages)) return;
        const came = usages ? usages.usageAt(link, other) : 0;
        const from = step === 0 && usages ? usages.usageAt(link, node) : left;
        const key = came === 0 && from === 0 ? other : `${other} ${from} ${came}`;
        const clean = isClean && !graph.isSuspect(link);
        const known = next.get(key);
        if (!known) next.set(key, { node: other, usage: came, left: from, isClean: clean });
        else known.isClean ||= clean;
      });
    at = next;
  });
  for (const { node, isClean, left, usage } of at.values()) visit(node, isClean, left, usage);
}

/** The paths of a way between two nodes, each as the links that it takes; at most so many. */
export function findPaths(
  graph: TraceGraph,
  start: number,
  end: number,
  steps: readonly MarkStep[],
  isPresent: (node: number) => boolean,
  usages: UsageEnds | undefined,
  most: number,
): number[][] {
  const found: number[][] = [];
  const taken: number[] = [];
  const walk = (node: number, usage: number, step: number): void => {
    const { kind, direction, isEnd } = steps[step]!;
    const isLast = step === steps.length - 1;
    graph.forEachLink(node, direction, (link, other) => {
      if (found.length >= most || graph.kind[link] !== kind || !isPresent(other) || (isEnd && !isEnd(other)) || (isLast && other !== end)) return;
      if (usages && !mayGoOn(usage, usages.usageAt(link, node), usages)) return;
      taken.push(link);
      if (isLast) found.push([...taken]);
      else walk(other, usages ? usages.usageAt(link, other) : 0, step + 1);
      taken.pop();
    });
  };
  walk(start, 0, 0);
  return found;
}
