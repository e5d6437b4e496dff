/** What code may look for among the kinds of a project, whatever people call them there; with what plays the part where a project has nothing of its own. */
export const kindRoles = {
  need: { label: 'Need', explains: 'what somebody wants of the whole', else: ['requirement'] },
  requirement: { label: 'Requirement', explains: 'what must hold; documents, sheets and exchange files give these', else: ['need'] },
  information: { label: 'Information', explains: 'notes and guidance between other items', else: [] },
  test: { label: 'Test', explains: 'what results of runs belong to', else: [] },
  actor: { label: 'Actor', explains: 'who or what acts on the system from outside', else: [] },
  useCase: { label: 'Use case', explains: 'use cases of models', else: ['function'] },
  step: { label: 'Step', explains: 'a step of a use case', else: ['useCase'] },
  function: { label: 'Function', explains: 'activities and actions of models', else: ['component'] },
  package: { label: 'Package', explains: 'packages of models, which become sections', else: ['information'] },
  component: { label: 'Component', explains: 'blocks, classes and components of models', else: ['part', 'function'] },
  interface: { label: 'Interface', explains: 'interfaces and signals of models', else: ['component'] },
  part: { label: 'Part', explains: 'a use of a component inside another', else: ['component'] },
  value: { label: 'Value', explains: 'a quantity of a component, which may differ from use to use', else: ['part'] },
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
  leads: { label: 'leads to', explains: 'from a function or step to the next' },
  composes: { label: 'composes', explains: 'from a whole to its parts' },
  types: { label: 'types', explains: 'from a part to what it is a use of' },
  depends: { label: 'depends', explains: 'any other dependency of models' },
} as const;
export type LinkRole = keyof typeof linkRoles;
