import type { TraceGraph } from '../trace/graph.js';
import { buildReach } from '../trace/reach.js';
import type { UsageEnds } from '../trace/usages.js';
import type { CoverageQuestion } from './coverage-question.js';

/** How many different targets an item reaches by a rule, beginning in a usage (0: in any). */
export function countReached(graph: TraceGraph, question: CoverageQuestion, node: number, cleanOnly: boolean, usages?: UsageEnds, usage = 0): number {
  const { steps, maxSteps, target, present } = question;
  const mayEnter = present ? (other: number) => present[other] === 1 : undefined;
  const reached = buildReach(graph, node, { steps, maxDistance: maxSteps, cleanOnly, usage, ...(mayEnter && { mayEnter }), ...(usages && { usages }) });
  const found = new Set<number>();
  for (const entry of reached) if (entry.distance > 0 && target[entry.node]) found.add(entry.node);
  return found.size;
}
