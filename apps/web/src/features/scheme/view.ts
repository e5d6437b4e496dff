import type { View } from '../../shared/view';

export const schemeView: View = {
  stage: 'shape',
  name: 'Scheme',
  help: 'Which layers, kinds, fields and link kinds there are, and what must hold between them.',
  path: 'shape/scheme',
  load: async () => (await import('./SchemePage')).SchemePage,
};
