import type { ProjectState } from '../project-state/project-state.js';

/** Title of an item after the number of the clause that it came from. */
export function titleWithClause(state: ProjectState, node: number): string {
  return [state.clauseOf(node), state.items[node]!.title].filter(Boolean).join(' ');
}
