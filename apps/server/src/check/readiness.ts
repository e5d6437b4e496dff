import type { Readiness } from '@coomb/contract';
import { buildStateCounts, type CoverageState, outcomes, verificationStates } from '@coomb/core';
import type { ProjectState } from '../project-state/project-state.js';
import { classes } from './figures/distribution-figures.js';
import { countFigure } from './figures/families.js';
import { schemeFigureIds } from './figures/scheme-figures.js';

/** Every figure of a project as of now, or of a part of its items. */
export function buildReadiness(state: ProjectState, within: (node: number) => boolean = () => true): Readiness {
  const figure = (id: string) => countFigure(state, id, within);
  return {
    seq: state.seq,
    rules: state.scheme.rules.map((rule) => {
      const counts: Record<CoverageState, number> = { met: 0, suspect: 0, waived: 0, notMet: 0, notApplicable: 0 };
      const { subject } = state.question(rule);
      const coverage = state.coverage(rule);
      for (let node = 0; node < subject.length; node++) if (subject[node] && within(node)) counts[coverage.stateOf(node)]++;
      return { rule: rule.id, label: rule.label, sentence: rule.sentence, counts, applicable: counts.met + counts.suspect + counts.waived + counts.notMet };
    }),
    states: verificationStates.map((one) => ({ ...figure(`state:${one}`), state: one })),
    results: [...outcomes, 'none'].map((outcome) => figure(`results:${outcome}`)),
    links: [figure('links:suspect'), figure('links:none'), figure('links:open')],
    scheme: schemeFigureIds.map((id) => figure(`scheme:${id}`)),
    testsPerRequirement: classes.map(({ id }) => figure(`tests-per-requirement:${id}`)),
    requirementsPerTest: classes.map(({ id }) => figure(`requirements-per-test:${id}`)),
    collections: countCollections(state, within),
  };
}

/** Of each collection the states of its requirements, and how many of its items each rule still misses. In one pass per rule. */
function countCollections(state: ProjectState, within: (node: number) => boolean): Readiness['collections'] {
  const collections = state.contents.liveCollections();
  const rowOf = new Map(collections.map(({ id }, row) => [id, row]));
  const ofNode = Int32Array.from(state.items, ({ collectionId, withdrawn }, node) => (withdrawn || !within(node) ? -1 : (rowOf.get(collectionId) ?? -1)));
  const states = collections.map(() => buildStateCounts());
  const all = state.allStates();
  for (const node of state.nodesOfKinds(state.scheme.verification.of.kinds)) if (ofNode[node]! >= 0) states[ofNode[node]!]![all[node]!]++;
  const rules = state.scheme.rules.map((rule) => {
    const counts = collections.map(() => ({ rule: rule.id, open: 0, applicable: 0 }));
    const { subject } = state.question(rule);
    const coverage = state.coverage(rule);
    for (let node = 0; node < subject.length; node++) {
      if (!subject[node] || ofNode[node]! < 0) continue;
      const count = counts[ofNode[node]!]!;
      count.applicable++;
      if (coverage.stateOf(node) === 'notMet') count.open++;
    }
    return counts;
  });
  return collections.map(({ id, name }, row) => ({
    id,
    name,
    states: states[row]!,
    rules: rules.map((counts) => counts[row]!).filter((count) => count.applicable > 0),
  }));
}
