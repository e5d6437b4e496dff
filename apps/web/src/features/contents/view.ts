import type { View } from '../../shared/view';

export const contentsView: View = {
  stage: 'shape',
  name: 'Contents',
  help: 'The collections of the project and the sets they stand in.',
  path: 'shape/contents',
  load: async () => (await import('./ContentsPage')).ContentsPage,
};
