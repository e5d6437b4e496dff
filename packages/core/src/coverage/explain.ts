import type { TraceGraph } from '../trace/graph.js';
import { buildReach, findPath, type Reached } from '../trace/reach.js';
import type { CoverageQuestion } from './live-coverage.js';

export interface Explanation {
  /** Shortest path to each item that meets the rule, root first; clean paths before suspect ones. */
  paths: { nodes: Reached[]; suspect: boolean }[];
  /** Where the search ended when nothing was found: the farthest items reached, by distance. */
  ends: Reached[];
}

/** Answers "why?" for one item under one coverage rule: the very paths, or where the search ended. */
export function buildExplanation(graph: TraceGraph, question: CoverageQuestion, root: number, mostPaths = 20): Explanation {
  const { steps, maxSteps, target, present } = question;
  const mayEnter = (node: number) => (present ? present[node] === 1 : true);
  const reached = buildReach(graph, root, { steps, maxDistance: maxSteps, mayEnter });
  const clean = buildReach(graph, root, { steps, maxDistance: maxSteps, mayEnter, cleanOnly: true });
  const cleanNodes = new Set(clean.map((entry) => entry.node));
  const paths: Explanation['paths'] = [];
  for (const entry of reached) {
    if (entry.distance === 0 || !target[entry.node]) continue;
    const suspect = !cleanNodes.has(entry.node);
    paths.push({ nodes: findPath(suspect ? reached : clean, entry.node) ?? [], suspect });
  }
  paths.sort((a, b) => Number(a.suspect) - Number(b.suspect) || a.nodes.length - b.nodes.length);
  const farthest = Math.max(0, ...reached.map((entry) => entry.distance));
  const ends = paths.length ? [] : reached.filter((entry) => entry.distance > 0 && entry.distance === farthest);
  return { paths: paths.slice(0, mostPaths), ends };
}
