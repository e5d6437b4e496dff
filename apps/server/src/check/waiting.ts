import { openFigure } from './figures/families.js';
import type { ProjectState } from '../project-state/project-state.js';

/** What waits at each stage of the course of work. */
export interface Waiting {
  /** Sources gathered so far: 0 says where to begin. */
  gather: number;
  /** Items without a title of their own. */
  shape: number;
  /** Items that no link reaches, or whose links are suspect. */
  link: number;
  /** Items that miss a coverage rule or fail. */
  check: number;
  /** Changes since the last report. */
  publish: number;
}

/** Each number is that of the figure that opens its items. */
export function countWaiting(state: ProjectState, lastReport: number | undefined): Waiting {
  const count = (figure: string) => openFigure(state, figure).nodes.length;
  return {
    gather: state.sources,
    shape: count('untitled'),
    link: count('links:open'),
    check: count('open'),
    publish: Math.max(0, state.contentSeq - (lastReport ?? 0)),
  };
}
