import { findKind } from '@coomb/core';
import type { ProjectState } from '../project-state/project-state.js';

/** What waits at each stage of the course of work. */
export interface Waiting {
  /** Sources gathered so far: 0 says where to begin. */
  gather: number;
  /** Requirements without text. */
  shape: number;
  /** Suspect links, and items that no link reaches. */
  link: number;
  /** Items that miss a coverage rule or fail. */
  check: number;
  /** Batches since the last report. */
  publish: number;
}

export function countWaiting(state: ProjectState, lastReport: number | undefined): Waiting {
  const { linked, suspectLinks } = state.linkMarks();
  let unlinked = 0;
  let untitled = 0;
  state.items.forEach((item, node) => {
    if (item.withdrawn || item.heading || findKind(state.scheme, item.kind)?.informative) return;
    if (item.title === 'Untitled') untitled++;
    if (!linked[node]) unlinked++;
  });
  return { gather: state.sources, shape: untitled, link: unlinked + suspectLinks, check: findOpen(state).length, publish: state.seq - (lastReport ?? 0) };
}

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
