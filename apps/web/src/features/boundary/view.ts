import type { View } from '../../shared/view';

export const boundaryView: View = {
  stage: 'shape',
  name: 'Boundary',
  help: 'A context of the system and what is outside: what each is there for, who performs which function, and what is missing.',
  path: 'shape/boundary',
  load: async () => (await import('./BoundaryPage')).BoundaryPage,
};
