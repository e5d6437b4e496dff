import { outcomes, type Outcome, testKinds } from '@coomb/core';
import type { ProjectState } from '../../project-state/project-state.js';
import type { FigureFamily } from './figure-family.js';

const words: Record<Outcome | 'none', string> = {
  passed: 'Tests passed',
  failed: 'Tests failed',
  broken: 'Tests broken',
  skipped: 'Tests skipped',
  none: 'Tests not run',
};

/** Test cases that are present, as nodes. */
export function findTests(state: ProjectState): readonly number[] {
  return state.nodesOfKinds(testKinds(state.scheme));
}

/** `results:<outcome>`: test cases by their latest outcome; `none` where there is none. */
export const resultFigures = {
  id: 'results',
  describe: (_, [outcome]) =>
    outcome === 'none' || outcomes.includes(outcome as Outcome)
      ? { label: words[outcome as Outcome], explains: 'Latest result of each test case in all runs.' }
      : undefined,
  collect: (state, [wanted]) => findTests(state).filter((node) => (state.latest.get(state.items[node]!.id)?.outcome ?? 'none') === wanted),
} satisfies FigureFamily;
