import type { ProjectState } from '../project-state/project-state.js';

/** Items that miss a coverage rule, or whose verification fails, in node order. */
export function findOpen(state: ProjectState): number[] {
  const open = new Set<number>();
  for (const rule of state.scheme.rules) {
    const coverage = state.coverage(rule);
    const { subject } = state.question(rule);
    for (let node = 0; node < subject.length; node++) if (subject[node] && coverage.stateOf(node) === 'notMet') open.add(node);
  }
  state.allStates().forEach((one, node) => one === 'failing' && open.add(node));
  return [...open].sort((a, b) => a - b);
}

/** What is open at an item, in words: the rules it misses, and failing evidence. */
export function describeGaps(state: ProjectState, node: number): string {
  const missed = state.scheme.rules.filter((rule) => state.question(rule).subject[node] && state.coverage(rule).stateOf(node) === 'notMet');
  const misses = missed.length ? [`misses ${missed.map((rule) => rule.label).join(', ')}`] : [];
  return [...misses, ...(state.stateOf(node) === 'failing' ? ['fails'] : [])].join('; ');
}
