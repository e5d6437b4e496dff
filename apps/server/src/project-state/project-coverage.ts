import {
  buildFlagReader,
  buildQuestion,
  type CoverageItems,
  type CoverageReading,
  type CoverageRule,
  LiveCoverage,
  type Scheme,
  type TraceGraph,
  UsageCoverage,
  type UsageEnds,
} from '@coomb/core';
import type { LinkMove } from './link-table.js';

type Question = ReturnType<typeof buildQuestion>;

/** Coverage by every rule of a project: computed when first asked, then following each link, until the items themselves change. */
export class ProjectCoverage {
  private readonly coverageOf = new Map<string, LiveCoverage>();
  private readonly questionOf = new Map<string, Question>();

  constructor(
    private readonly scheme: () => Scheme,
    private readonly graph: TraceGraph,
    private readonly items: () => CoverageItems,
    /** Which links hold in one usage only; nothing while none does. */
    private readonly usages: () => UsageEnds | undefined,
  ) {}

  question(rule: CoverageRule): Question {
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

  /** In one usage of an item, whether or not the rule is asked in each; waivers aside. */
  stateIn(rule: CoverageRule, node: number, usage: number, ends: UsageEnds): ReturnType<UsageCoverage['stateIn']> {
    const question = this.question(rule);
    return new UsageCoverage(this.graph, question, this.live(rule), ends).stateIn(node, usage);
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

  /** Follows items that came to be something else, or are new: what the rules say of each, and through its links of others. */
  followNodes(nodes: readonly number[]): void {
    if (this.questionOf.size === 0) return;
    const items = this.items();
    for (const [id, question] of this.questionOf) {
      const rule = this.scheme().rules.find((one) => one.id === id);
      if (!rule) continue;
      grow(question, items.count);
      const coverage = this.coverageOf.get(id);
      coverage?.nodesChanged(question.subject.length);
      const read = buildFlagReader(rule, items);
      for (const node of nodes) {
        const flags = read(node);
        const { subject, target, waived, present } = question;
        waived[node] = flags.waived;
        if (present[node] === flags.present && subject[node] === flags.subject && target[node] === flags.target) continue;
        const links = coverage ? [...this.graph.findLinks(node, 'out'), ...this.graph.findLinks(node, 'in')] : [];
        for (const link of links) {
          this.graph.removeLink(link);
          coverage!.linkRemoved(link);
        }
        present[node] = flags.present;
        subject[node] = flags.subject;
        target[node] = flags.target;
        coverage?.flagsChanged(node);
        for (const link of links) {
          this.graph.restoreLink(link);
          coverage!.linkAdded(link);
        }
      }
    }
  }

  forget(): void {
    this.coverageOf.clear();
    this.questionOf.clear();
  }
}

/** Makes room in the columns of a question for more nodes, with some to spare. */
function grow(question: Question, nodes: number): void {
  if (question.subject.length >= nodes) return;
  const room = Math.ceil(nodes * 1.1) + 16;
  for (const column of ['subject', 'target', 'waived', 'present'] as const) {
    const larger = new Uint8Array(room);
    larger.set(question[column]);
    question[column] = larger;
  }
}
