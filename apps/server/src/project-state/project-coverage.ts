import {
  buildQuestion,
  type CoverageItems,
  type CoverageQuestion,
  type CoverageReading,
  type CoverageRule,
  LiveCoverage,
  type Scheme,
  type TraceGraph,
  UsageCoverage,
  type UsageEnds,
} from '@coomb/core';
import type { LinkMove } from './link-table.js';

/** Coverage by every rule of a project: computed when first asked, then following each link, until the items themselves change. */
export class ProjectCoverage {
  private readonly coverageOf = new Map<string, LiveCoverage>();
  private readonly questionOf = new Map<string, CoverageQuestion>();

  constructor(
    private readonly scheme: () => Scheme,
    private readonly graph: TraceGraph,
    private readonly items: () => CoverageItems,
    /** Which links hold in one usage only; nothing while none does. */
    private readonly usages: () => UsageEnds | undefined,
  ) {}

  question(rule: CoverageRule): CoverageQuestion {
    let question = this.questionOf.get(rule.id);
    if (!question) {
      const usages = this.usages();
      question = { ...buildQuestion(this.scheme(), rule, this.items()), ...(usages && { usages }) };
      this.questionOf.set(rule.id, question);
    }
    return question;
  }

  /** Of a rule that is asked in each usage, item by item as all their usages say together. */
  coverage(rule: CoverageRule): CoverageReading {
    const live = this.live(rule);
    const question = this.question(rule);
    return rule.throughUsages && question.usages ? new UsageCoverage(this.graph, question, live, question.usages) : live;
  }

  private live(rule: CoverageRule): LiveCoverage {
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
