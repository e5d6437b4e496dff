import type { Field, Kind, LinkKind, Scheme } from './scheme.js';

/** What code may look for among the kinds of a project, whatever people call them there; with what plays the part where a project has nothing of its own. */
export const kindRoles = {
  need: { label: 'Need', explains: 'what somebody wants of the whole', else: ['requirement'] },
  requirement: { label: 'Requirement', explains: 'what must hold; documents, sheets and exchange files give these', else: ['need'] },
  information: { label: 'Information', explains: 'notes and guidance between other items', else: [] },
  test: { label: 'Test', explains: 'what results of runs belong to', else: [] },
  actor: { label: 'Actor', explains: 'who or what acts on the system from outside', else: [] },
  useCase: { label: 'Use case', explains: 'use cases of models', else: ['function'] },
  function: { label: 'Function', explains: 'activities and actions of models', else: ['component'] },
  package: { label: 'Package', explains: 'packages of models, which become sections', else: ['information'] },
  component: { label: 'Component', explains: 'blocks, classes and components of models', else: ['part', 'function'] },
  interface: { label: 'Interface', explains: 'interfaces and signals of models', else: ['component'] },
  part: { label: 'Part', explains: 'a use of a component inside another', else: ['component'] },
  port: { label: 'Port', explains: 'where a component meets others', else: ['part'] },
  drawing: { label: 'Drawing', explains: 'diagrams of models', else: ['information'] },
  remote: { label: 'Pointer', explains: 'what only points at something kept elsewhere', else: ['information'] },
} as const satisfies Record<string, { label: string; explains: string; else: readonly string[] }>;
export type KindRole = keyof typeof kindRoles;

/** What code may look for among the link kinds. */
export const linkRoles = {
  verifies: { label: 'verifies', explains: 'evidence: from a test to what it tests' },
  satisfies: { label: 'satisfies', explains: 'from design to what it fulfils' },
  refines: { label: 'refines', explains: 'from what says more to what it says more of' },
  derives: { label: 'derives', explains: 'from a requirement to the one that it comes from' },
  allocates: { label: 'allocates', explains: 'from what is done to what does it' },
  realises: { label: 'realises', explains: 'from a layer to the one above that it makes real' },
  composes: { label: 'composes', explains: 'from a whole to its parts' },
  types: { label: 'types', explains: 'from a part to what it is a use of' },
  depends: { label: 'depends', explains: 'any other dependency of models' },
} as const;
export type LinkRole = keyof typeof linkRoles;

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

/** Kinds that play a part, in the scheme's order; retired ones are not asked. */
export function kindsOfRole(scheme: Scheme, role: KindRole): Kind[] {
  return scheme.kinds.filter((kind) => !kind.retired && kind.roles?.includes(role));
}

/** The first kind that plays a part, else one of those that stand in for it. */
export function findKindOfRole(scheme: Scheme, role: KindRole): Kind | undefined {
  const [own] = kindsOfRole(scheme, role);
  if (own) return own;
  for (const other of kindRoles[role].else) {
    const [found] = kindsOfRole(scheme, other);
    if (found) return found;
  }
  return undefined;
}

/** The kind of what comes in from files when nothing says more: the requirement, else the first that needs coverage. A scheme has at least one kind. */
export function getUsualKind(scheme: Scheme): Kind {
  const kinds = scheme.kinds.filter((kind) => !kind.retired);
  const usual = findKindOfRole(scheme, 'requirement') ?? kinds.find((kind) => !kind.informative) ?? kinds[0];
  if (!usual) throw new Error('The scheme has no kind');
  return usual;
}

/** Whether items of a kind play a part. */
export function hasRole(scheme: Scheme, kind: string, role: KindRole): boolean {
  return scheme.kinds.some((one) => one.id === kind && one.roles?.includes(role));
}

/** Kinds of what results belong to: those that play the test, and those that verification counts as tests. */
export function testKinds(scheme: Scheme): string[] {
  const verifying = scheme.linkKinds.find((kind) => kind.id === scheme.verification.verifies)?.fromKinds ?? [];
  return [...new Set([...kindsOfRole(scheme, 'test').map((kind) => kind.id), ...verifying])];
}

/** Link kinds that play a part, in the scheme's order; retired ones are not asked. */
export function linkKindsOfRole(scheme: Scheme, role: LinkRole): LinkKind[] {
  return scheme.linkKinds.filter((kind) => !kind.retired && kind.role === role);
}

/** The field of a kind that plays a part. */
export function findFieldOfRole(kind: Kind | undefined, role: FieldRole): Field | undefined {
  return kind?.fields.find((field) => field.role === role);
}
