import { buildQuestion, type CoverageItems, type CoverageQuestion, type CoverageRule, LiveCoverage, type Scheme, type TraceGraph } from '@coomb/core';
import type { LinkMove } from './link-table.js';

/** Coverage by every rule of a project: computed when first asked, then following each link, until the items themselves change. */
export class ProjectCoverage {
  private readonly coverageOf = new Map<string, LiveCoverage>();
  private readonly questionOf = new Map<string, CoverageQuestion>();

  constructor(
    private readonly scheme: () => Scheme,
    private readonly graph: TraceGraph,
    private readonly items: () => CoverageItems,
  ) {}

  question(rule: CoverageRule): CoverageQuestion {
    let question = this.questionOf.get(rule.id);
    if (!question) this.questionOf.set(rule.id, (question = buildQuestion(this.scheme(), rule, this.items())));
    return question;
  }

  coverage(rule: CoverageRule): LiveCoverage {
    let coverage = this.coverageOf.get(rule.id);
    if (!coverage) this.coverageOf.set(rule.id, (coverage = new LiveCoverage(this.graph, this.question(rule))));
    return coverage;
  }

  follow(change: LinkMove): void {
    if (!change) return;
    if (change.move === 'kind') return this.forget();
    for (const coverage of this.coverageOf.values()) {
      if (change.move === 'added') coverage.linkAdded(change.link);
      else if (change.move === 'removed') coverage.linkRemoved(change.link);
      else coverage.suspicionChanged(change.link);
    }
  }

  forget(): void {
    this.coverageOf.clear();
    this.questionOf.clear();
  }
}
