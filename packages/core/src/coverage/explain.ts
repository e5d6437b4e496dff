import type { TraceGraph } from '../trace/graph.js';
import { buildReach, findPath, type Reached } from '../trace/reach.js';
import type { CoverageQuestion } from './coverage-question.js';

export interface Explanation {
  /** Shortest path to each item that meets the rule, root first; clean paths before suspect ones. */
  paths: { nodes: Reached[]; suspect: boolean }[];
  /** Where the search ended when nothing was found: the farthest items reached, by distance. */
  ends: Reached[];
}

/** Answers "why?" for one item under one coverage rule: the very paths, or where the search ended. */
/** `usage` asks in one usage of the item; 0 wherever it is used. */
export function buildExplanation(graph: TraceGraph, question: CoverageQuestion, root: number, usage = 0, mostPaths = 20): Explanation {
  const { steps, maxSteps, target, present, usages } = question;
  const mayEnter = (node: number) => (present ? present[node] === 1 : true);
  const reached = buildReach(graph, root, { steps, maxDistance: maxSteps, mayEnter, usage, ...(usages && { usages }) });
  const clean = buildReach(graph, root, { steps, maxDistance: maxSteps, mayEnter, usage, ...(usages && { usages }), cleanOnly: true });
  const cleanNodes = new Set(clean.map((entry) => entry.node));
  const paths: Explanation['paths'] = [];
  const told = new Set<number>();
  for (const entry of reached) {
    if (entry.distance === 0 || !target[entry.node] || told.has(entry.node)) continue;
    told.add(entry.node);
    const suspect = !cleanNodes.has(entry.node);
    paths.push({ nodes: findPath(suspect ? reached : clean, entry.node) ?? [], suspect });
  }
  paths.sort((a, b) => Number(a.suspect) - Number(b.suspect) || a.nodes.length - b.nodes.length);
  const farthest = Math.max(0, ...reached.map((entry) => entry.distance));
  const ends = paths.length ? [] : reached.filter((entry) => entry.distance > 0 && entry.distance === farthest);
  return { paths: paths.slice(0, mostPaths), ends };
}
