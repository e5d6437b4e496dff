import type { TraceGraph } from '../trace/graph.js';
import type { UsageEnds } from '../trace/usages.js';
import { countReached } from './count-reached.js';
import type { CoverageQuestion } from './coverage-question.js';
import type { LiveCoverage } from './live-coverage.js';
import type { CoverageState } from '../scheme/rule.js';

/** Coverage as items show it. */
export interface CoverageReading {
  stateOf: (node: number) => CoverageState;
}

/**
 * Coverage by a rule that is asked in each usage: an item with known usages is met when it is met in every one of them. A link that holds in
 * one usage counts there only; one that holds in all counts in each. Items without usages are read from the live counts.
 */
export class UsageCoverage implements CoverageReading {
  constructor(
    private readonly graph: TraceGraph,
    private readonly question: CoverageQuestion,
    private readonly live: LiveCoverage,
    private readonly ends: UsageEnds,
  ) {}

  stateOf(node: number): CoverageState {
    const usages = this.question.subject[node] ? this.ends.usagesOf(node) : [];
    if (usages.length === 0) return this.live.stateOf(node);
    const states = usages.map((usage) => this.stateIn(node, usage));
    if (states.includes('notMet')) return this.question.waived?.[node] ? 'waived' : 'notMet';
    return states.includes('suspect') ? (this.question.waived?.[node] ? 'waived' : 'suspect') : 'met';
  }

  /** In one usage of an item, waivers aside. */
  stateIn(node: number, usage: number): 'met' | 'suspect' | 'notMet' {
    const count = (cleanOnly: boolean) => countReached(this.graph, this.question, node, cleanOnly, this.ends, usage);
    if (count(true) >= this.question.atLeast) return 'met';
    return count(false) >= this.question.atLeast ? 'suspect' : 'notMet';
  }
}
