import type { ProjectState } from '../../project-state/project-state.js';

/** Figures of one sort: `rule:tested:notMet` belongs to the family `rule`, the rest being its parameters. */
export interface FigureFamily {
  id: string;
  /** What the figure counts, in words. Undefined when the parameters name no figure of the family. */
  describe: (state: ProjectState, parameters: readonly string[]) => { label: string; explains: string } | undefined;
  /** What makes one of the items count, where that differs from item to item. */
  noteOf?: (state: ProjectState, node: number) => string;
  /** The items counted, as nodes. */
  collect: (state: ProjectState, parameters: readonly string[]) => number[];
}
