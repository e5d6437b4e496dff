/** A rule that asks for a test of components in each of their uses. */
export const triedInEachPlace = {
  ...{ sort: 'rule' as const, key: 'tried', rank: 9, retired: false, revision: null },
  body: {
    ...{ label: 'Tried in each place', of: { kinds: ['component'] }, along: [{ linkKind: 'verifies', direction: 'in' as const }] },
    ...{ steps: 1, atLeast: 1, reach: { kinds: ['testCase'] }, throughUsages: true },
  },
};
