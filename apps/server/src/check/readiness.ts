import type { Readiness } from '@coomb/contract';
import { buildStateCounts, type CoverageState, outcomes, verificationStates } from '@coomb/core';
import type { ProjectState } from '../project-state/project-state.js';
import { classes } from './figures/distribution-figures.js';
import { countFigure } from './figures/families.js';

/** Every figure of a project as of now. */
export function buildReadiness(state: ProjectState): Readiness {
  const figure = (id: string) => countFigure(state, id);
  return {
    seq: state.seq,
    rules: state.scheme.rules.map((rule) => {
      const counts: Record<CoverageState, number> = { met: 0, suspect: 0, waived: 0, notMet: 0, notApplicable: 0 };
      const { subject } = state.question(rule);
      const coverage = state.coverage(rule);
      for (let node = 0; node < subject.length; node++) if (subject[node]) counts[coverage.stateOf(node)]++;
      return { rule: rule.id, label: rule.label, sentence: rule.sentence, counts, applicable: counts.met + counts.suspect + counts.waived + counts.notMet };
    }),
    states: verificationStates.map((one) => ({ ...figure(`state:${one}`), state: one })),
    results: [...outcomes, 'none'].map((outcome) => figure(`results:${outcome}`)),
    links: [figure('links:suspect'), figure('links:none')],
    testsPerRequirement: classes.map(({ id }) => figure(`tests-per-requirement:${id}`)),
    requirementsPerTest: classes.map(({ id }) => figure(`requirements-per-test:${id}`)),
    collections: state.liveCollections().map((collection) => ({ id: collection.id, name: collection.name, ...countCollection(state, collection.id) })),
  };
}

/** States of the requirements of a collection, and how many of its items each rule still misses. */
function countCollection(state: ProjectState, collection: string): Pick<Readiness['collections'][number], 'states' | 'rules'> {
  const states = buildStateCounts();
  const kinds = new Set(state.scheme.verification.of.kinds);
  const all = state.allStates();
  const nodes: number[] = [];
  state.items.forEach((item, node) => {
    if (item.collectionId !== collection || item.withdrawn) return;
    nodes.push(node);
    if (!item.heading && kinds.has(item.kind)) states[all[node]!]++;
  });
  const rules = state.scheme.rules.map((rule) => {
    const { subject } = state.question(rule);
    const coverage = state.coverage(rule);
    let applicable = 0;
    let open = 0;
    for (const node of nodes) {
      if (!subject[node]) continue;
      applicable++;
      if (coverage.stateOf(node) === 'notMet') open++;
    }
    return { rule: rule.id, open, applicable };
  });
  return { states, rules: rules.filter((rule) => rule.applicable > 0) };
}
