import { describe, expect, it } from 'vitest';
import { below, randomLinks, seeded, toColumns } from '../testing/random.js';
import { type Step, TraceGraph } from '../trace/graph.js';
import { buildReach } from '../trace/reach.js';
import type { CoverageQuestion } from './coverage-question.js';
import { LiveCoverage } from './live-coverage.js';
import type { CoverageState } from '../scheme/rule.js';

/** The rule as it reads: from each subject, look how many different targets can be reached. */
function slowState(graph: TraceGraph, question: CoverageQuestion, node: number): CoverageState {
  if (!question.subject[node]) return 'notApplicable';
  const count = (cleanOnly: boolean) =>
    buildReach(graph, node, { steps: question.steps, maxDistance: question.maxSteps, cleanOnly, mayEnter: (other) => question.present?.[other] !== 0 }).filter(
      (entry) => entry.distance > 0 && question.target[entry.node],
    ).length;
  if (count(true) >= question.atLeast) return 'met';
  if (question.waived?.[node]) return 'waived';
  return count(false) >= question.atLeast ? 'suspect' : 'notMet';
}

function randomCase(seed: number, atLeast: number, overlap: boolean) {
  const random = seeded(seed);
  const nodes = 36;
  const links = randomLinks(random, nodes, 70, 4).filter((link) => link.from !== link.to);
  const graph = TraceGraph.build(toColumns(nodes, links));
  const flags = (chance: number) => Uint8Array.from({ length: nodes }, () => (random() < chance ? 1 : 0));
  const present = flags(0.9);
  const subject = Uint8Array.from(flags(0.5), (is, node) => is & present[node]!);
  const target = Uint8Array.from(flags(0.25), (is, node) => is & present[node]! & (overlap ? 1 : 1 - subject[node]!));
  const all: Step[] = [0, 1, 2, 3].flatMap(
    (kind) =>
      [
        { kind, direction: 'out' },
        { kind, direction: 'in' },
      ] as Step[],
  );
  const steps = all.filter(() => random() < 0.5);
  const question: CoverageQuestion = {
    steps: steps.length ? steps : all,
    maxSteps: 1 + below(random, 4),
    atLeast,
    subject,
    target,
    present,
    waived: flags(0.1),
  };
  return { random, nodes, links, graph, question };
}

const statesOf = (coverage: LiveCoverage, nodes: number) => Array.from({ length: nodes }, (_, node) => coverage.stateOf(node));

describe('LiveCoverage', () => {
  const seeds = Array.from({ length: 40 }, (_, index) => index + 1);

  it.each(seeds)('agrees with a search from every subject (seed %i)', (seed) => {
    const { graph, question, nodes } = randomCase(seed, 1, false);
    expect(statesOf(new LiveCoverage(graph, question), nodes)).toEqual(Array.from({ length: nodes }, (_, node) => slowState(graph, question, node)));
  });

  it.each(seeds)('follows two hundred changed links as if built anew (seed %i)', (seed) => {
    const { random, graph, question, nodes } = randomCase(seed, 1, false);
    const coverage = new LiveCoverage(graph, question);
    for (let step = 0; step < 200; step++) {
      const link = below(random, graph.links);
      const chance = random();
      if (chance < 0.3) {
        const from = below(random, nodes);
        const to = (from + 1 + below(random, nodes - 1)) % nodes;
        coverage.linkAdded(graph.addLink(from, to, below(random, 4), random() < 0.3));
      } else if (chance < 0.65) {
        if (!graph.isAlive(link)) continue;
        graph.removeLink(link);
        coverage.linkRemoved(link);
      } else if (chance < 0.8) {
        if (graph.isAlive(link)) continue;
        graph.restoreLink(link);
        coverage.linkAdded(link);
      } else {
        if (!graph.isAlive(link)) continue;
        graph.setSuspect(link, !graph.isSuspect(link));
        coverage.suspicionChanged(link);
      }
      if (step % 20 === 0) expect(statesOf(coverage, nodes)).toEqual(Array.from({ length: nodes }, (_, node) => slowState(graph, question, node)));
    }
    expect(statesOf(coverage, nodes)).toEqual(Array.from({ length: nodes }, (_, node) => slowState(graph, question, node)));
  });

  it.each(seeds.slice(0, 12))('counts different items, not ways to them, when two are asked (seed %i)', (seed) => {
    const { graph, question, nodes } = randomCase(seed, 2, false);
    expect(statesOf(new LiveCoverage(graph, question), nodes)).toEqual(Array.from({ length: nodes }, (_, node) => slowState(graph, question, node)));
  });

  it.each(seeds.slice(0, 12))('never lets an item cover itself around a cycle (seed %i)', (seed) => {
    const { graph, question, nodes } = randomCase(seed, 1, true);
    expect(statesOf(new LiveCoverage(graph, question), nodes)).toEqual(Array.from({ length: nodes }, (_, node) => slowState(graph, question, node)));
  });

  it('counts the states', () => {
    const graph = TraceGraph.build(toColumns(3, [{ from: 2, to: 0, kind: 0, suspect: false }]));
    const question: CoverageQuestion = {
      steps: [{ kind: 0, direction: 'in' }],
      maxSteps: 1,
      atLeast: 1,
      subject: Uint8Array.from([1, 1, 0]),
      target: Uint8Array.from([0, 0, 1]),
    };
    expect(new LiveCoverage(graph, question).count()).toEqual({ met: 1, suspect: 0, waived: 0, notMet: 1, notApplicable: 1 });
  });
});
