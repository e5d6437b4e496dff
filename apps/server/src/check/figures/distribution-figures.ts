import type { ProjectState } from '../../project-state/project-state.js';
import type { FigureFamily } from './figure-family.js';
import { findTests } from './result-figures.js';

/** Classes of a distribution: none, one, two, three to five, more. */
export const classes: { id: string; label: string; from: number; to: number }[] = [
  { id: '0', label: 'none', from: 0, to: 0 },
  { id: '1', label: '1', from: 1, to: 1 },
  { id: '2', label: '2', from: 2, to: 2 },
  { id: '3-5', label: '3 to 5', from: 3, to: 5 },
  { id: '6', label: '6 or more', from: 6, to: Number.POSITIVE_INFINITY },
];

const inClass = (count: number, id: string | undefined) => {
  const one = classes.find((entry) => entry.id === id);
  return one !== undefined && count >= one.from && count <= one.to;
};

function countRequirements(state: ProjectState, test: number): number {
  const verifies = state.linkKindIndex(state.scheme.verification.verifies);
  let count = 0;
  state.graph.forEachLink(test, 'out', (link, other) => {
    if (state.graph.kind[link] === verifies && state.isPresent(other)) count++;
  });
  return count;
}

/** `tests-per-requirement:<class>` */
export const testsPerRequirement = {
  id: 'tests-per-requirement',
  describe: (_, [id]) => {
    const one = classes.find((entry) => entry.id === id);
    return (
      one && {
        label: `Requirements with ${one.label} ${one.id === '1' ? 'test' : 'tests'}`,
        explains: 'Test cases that verify the requirement, or what is derived from it.',
      }
    );
  },
  collect: (state, [id]) => {
    const counts = state.verifying.testCounts();
    return state.nodesOfKinds(state.scheme.verification.of.kinds).filter((node) => inClass(counts[node]!, id));
  },
} satisfies FigureFamily;

/** `requirements-per-test:<class>` */
export const requirementsPerTest = {
  id: 'requirements-per-test',
  describe: (_, [id]) => {
    const one = classes.find((entry) => entry.id === id);
    return one && { label: `Tests that verify ${one.label} ${one.id === '1' ? 'item' : 'items'}`, explains: 'Items the test case verifies directly.' };
  },
  collect: (state, [id]) => findTests(state).filter((node) => inClass(countRequirements(state, node), id)),
} satisfies FigureFamily;
