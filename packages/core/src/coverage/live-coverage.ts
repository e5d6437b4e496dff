import type { TraceGraph } from '../trace/graph.js';
import { countReached } from './count-reached.js';
import type { CoverageQuestion } from './coverage-question.js';
import type { CoverageState } from '../scheme/rule.js';

/** Marks of a node during a sweep, side by side so that one look tells both. */
const PRESENT = 1;
const TARGET = 2;

/**
 * Coverage of every item at once, kept current link by link.
 *
 * `support[k][v]` counts the links by which v reaches, in one step, something that reaches a target in at most k-1 steps;
 * v reaches a target within k steps when it is one or its support there is above zero. Each level rests only on the level
 * below, so cycles need no care, and one link changed moves counts only where reach flips (constant time, as a rule).
 * Two sets of counts are kept: over all links, and over those that are not suspect.
 * A rule that asks for two or more distinct items, or whose subjects may reach each other, is answered by a search per subject.
 */
export class LiveCoverage {
  private readonly out = new Uint8Array(256);
  private readonly in = new Uint8Array(256);
  private all: Uint32Array[] = [];
  private clean: Uint32Array[] = [];
  private readonly graph: TraceGraph;
  private readonly question: CoverageQuestion;
  /** Counts of paths would count an item itself, or one item twice: ask each subject by a search. */
  private searches: boolean;

  constructor(graph: TraceGraph, question: CoverageQuestion) {
    this.graph = graph;
    this.question = question;
    this.searches = question.atLeast > 1 || overlaps(question.subject, question.target);
    for (const step of question.steps) (step.direction === 'out' ? this.out : this.in)[step.kind] = 1;
    this.sweep(this.all, false);
    if (graph.hasSuspect()) this.sweep(this.clean, true);
    else for (const level of this.all) this.clean.push(level.slice());
  }

  stateOf(node: number): CoverageState {
    const { subject, waived, maxSteps, atLeast } = this.question;
    if (!subject[node]) return 'notApplicable';
    // Counts know nothing of usages: over one link they need not, over several they say at most too much.
    const isReached = maxSteps === 1 || !this.question.usages ? () => true : (cleanOnly: boolean) => this.countReached(node, cleanOnly) > 0;
    if (!this.searches) {
      if (this.clean[maxSteps - 1]![node]! > 0 && isReached(true)) return 'met';
      if (waived?.[node]) return 'waived';
      return this.all[maxSteps - 1]![node]! > 0 && isReached(false) ? 'suspect' : 'notMet';
    }
    if (this.countReached(node, true) >= atLeast) return 'met';
    if (waived?.[node]) return 'waived';
    return this.countReached(node, false) >= atLeast ? 'suspect' : 'notMet';
  }

  /** How many subjects are in each state. */
  count(): Record<CoverageState, number> {
    const counts: Record<CoverageState, number> = { met: 0, suspect: 0, waived: 0, notMet: 0, notApplicable: 0 };
    for (let node = 0; node < this.graph.nodes; node++) counts[this.stateOf(node)]++;
    return counts;
  }

  /**
   * Call when nodes were added. Where the question comes to say something else of a node, no live link may reach it at that moment: take its
   * links out of the graph first, and tell of each; then put them back.
   */
  nodesChanged(nodes: number): void {
    const grow = (level: Uint32Array) => {
      if (level.length >= nodes) return level;
      const larger = new Uint32Array(Math.max(nodes, Math.ceil(level.length * 1.25)));
      larger.set(level);
      return larger;
    };
    this.all = this.all.map(grow);
    this.clean = this.clean.map(grow);
  }

  /** Call with each node that the question came to say something else of, before its links are put back. */
  flagsChanged(node: number): void {
    if (this.question.subject[node] && this.question.target[node]) this.searches = true;
  }

  /** Call after `graph.addLink`, `restoreLink`: follows the change through the counts. */
  linkAdded(link: number): void {
    this.change(this.all, link, 1, false);
    if (!this.graph.isSuspect(link)) this.change(this.clean, link, 1, true);
  }

  /** Call after `graph.removeLink`. */
  linkRemoved(link: number): void {
    this.change(this.all, link, -1, false);
    if (!this.graph.isSuspect(link)) this.change(this.clean, link, -1, true);
  }

  /** Call after `graph.setSuspect` when the mark really changed. */
  suspicionChanged(link: number): void {
    this.change(this.clean, link, this.graph.isSuspect(link) ? -1 : 1, true);
  }

  private countReached(node: number, cleanOnly: boolean): number {
    return countReached(this.graph, this.question, node, cleanOnly, this.question.usages);
  }

  private isPresent(node: number): boolean {
    return this.question.present ? this.question.present[node] === 1 : true;
  }

  /** Backwards from the targets, level by level: only what newly reaches is looked at. */
  private sweep(levels: Uint32Array[], cleanOnly: boolean): void {
    const { graph, question } = this;
    const { target, present } = question;
    const marks = new Uint8Array(graph.nodes);
    for (let node = 0; node < graph.nodes; node++) marks[node] = (present && present[node] !== 1 ? 0 : PRESENT) | (target[node] ? TARGET : 0);
    const frontier = new Uint32Array(graph.nodes);
    const next = new Uint32Array(graph.nodes);
    let count = 0;
    for (let node = 0; node < graph.nodes; node++) if (marks[node] === (PRESENT | TARGET)) frontier[count++] = node;
    for (let k = 0; k < question.maxSteps; k++) {
      const before = levels[k - 1];
      const level = before ? before.slice() : new Uint32Array(graph.nodes);
      levels.push(level);
      let found = this.stepBack('in', this.out, cleanOnly, marks, frontier, count, level, next, 0);
      found = this.stepBack('out', this.in, cleanOnly, marks, frontier, count, level, next, found);
      frontier.set(next.subarray(0, found));
      count = found;
    }
  }

  /** One step back from the frontier against steps of one direction; returns how many nodes newly reach. Written without calls per link. */
  private stepBack(
    direction: 'in' | 'out',
    mask: Uint8Array,
    cleanOnly: boolean,
    marks: Uint8Array,
    frontier: Uint32Array,
    count: number,
    level: Uint32Array,
    next: Uint32Array,
    already: number,
  ): number {
    if (!mask.includes(1)) return already;
    const { graph } = this;
    const { nodes, start, link, other, kind, state, skip } = graph.sweepRows(direction, cleanOnly);
    let found = already;
    const added = (one: number, node: number) => {
      if (!mask[graph.kind[one]!] || state[one]! & skip || !(marks[node]! & PRESENT)) return;
      if (level[node]!++ === 0 && !(marks[node]! & TARGET)) next[found++] = node;
    };
    const hasAdded = graph.links > link.length;
    for (let at = 0; at < count; at++) {
      const node = frontier[at]!;
      if (node < nodes)
        for (let i = start[node]!, end = start[node + 1]!; i < end; i++) {
          if (!mask[kind[i]!] || (skip && state[link[i]!]! & skip)) continue;
          const back = other[i]!;
          const mark = marks[back]!;
          if (!(mark & PRESENT)) continue;
          if (level[back]!++ === 0 && !(mark & TARGET)) next[found++] = back;
        }
      if (hasAdded) graph.forEachAdded(node, direction, added);
    }
    return found;
  }

  /**
   * A link stands for one step, or two when its kind may be walked both ways. What each step gives its holder rests on the reach
   * before the change, so all of it is read before any count moves; what flips then travels on along the links as they are now.
   */
  private change(levels: Uint32Array[], link: number, by: 1 | -1, cleanOnly: boolean): void {
    const { graph } = this;
    const kind = graph.kind[link]!;
    const from = graph.from[link]!;
    const to = graph.to[link]!;
    if (!this.isPresent(from) || !this.isPresent(to)) return;
    const given: [level: number, holder: number][] = [];
    for (let k = 0; k < levels.length; k++) {
      if (this.out[kind] && this.reaches(levels, k, to)) given.push([k, from]);
      if (this.in[kind] && this.reaches(levels, k, from)) given.push([k, to]);
    }
    for (const [k, holder] of given) this.bump(levels, k, holder, by, cleanOnly);
  }

  /** Whether a node is a target or reaches one within `k` steps. */
  private reaches(levels: Uint32Array[], k: number, node: number): boolean {
    return this.question.target[node] === 1 || (k > 0 && levels[k - 1]![node]! > 0);
  }

  private bump(levels: Uint32Array[], k: number, node: number, by: 1 | -1, cleanOnly: boolean): void {
    const level = levels[k]!;
    const had = level[node]! > 0;
    level[node]! += by;
    const has = level[node]! > 0;
    if (had === has || this.question.target[node] || k + 1 >= levels.length) return;
    const { graph } = this;
    const pass = (mask: Uint8Array) => (link: number, other: number) => {
      if (!mask[graph.kind[link]!] || !this.isPresent(other)) return;
      if (cleanOnly && graph.isSuspect(link)) return;
      this.bump(levels, k + 1, other, by, cleanOnly);
    };
    graph.forEachLink(node, 'in', pass(this.out));
    graph.forEachLink(node, 'out', pass(this.in));
  }
}

function overlaps(a: Uint8Array, b: Uint8Array): boolean {
  for (let i = 0; i < a.length; i++) if (a[i] && b[i]) return true;
  return false;
}
