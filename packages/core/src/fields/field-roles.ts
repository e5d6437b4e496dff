/** What code may look for among the fields of a kind. */
export const fieldRoles = {
  priority: { label: 'Priority', words: [] },
  rationale: { label: 'Rationale', words: [] },
  owner: { label: 'Owner', words: [] },
  state: { label: 'Standing', words: [] },
  method: { label: 'Verification method', words: [] },
  steps: { label: 'Steps of a test', words: ['steps', 'test steps', 'actions', 'procedure', 'schritte', 'etapes', 'pasos', 'passi', 'stappen'] },
  expected: {
    label: 'Expected outcome',
    words: ['expected', 'expected result', 'expected results', 'pass criteria', 'erwartetes ergebnis', 'resultat attendu'],
  },
  testKind: { label: 'Kind of test', words: ['test kind', 'test type', 'type of test', 'testart'] },
} as const satisfies Record<string, { label: string; words: readonly string[] }>;
export type FieldRole = keyof typeof fieldRoles;
