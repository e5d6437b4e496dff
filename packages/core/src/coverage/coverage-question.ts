import type { Step } from '../trace/graph.js';
import type { UsageEnds } from '../trace/usages.js';

/** A coverage rule over the nodes of a graph, in columns. */
export interface CoverageQuestion {
  steps: readonly Step[];
  maxSteps: number;
  atLeast: number;
  /** 1 for each node the rule asks about (applicable: not withdrawn, not a heading). */
  subject: Uint8Array;
  /** 1 for each node that counts as reached. */
  target: Uint8Array;
  /** 1 for each node with an active waiver of this rule. */
  waived?: Uint8Array;
  /** 0 for nodes that may not be walked through (withdrawn); all may when left out. */
  present?: Uint8Array;
  /** Links that hold in one usage only, where there are any. */
  usages?: UsageEnds;
}
