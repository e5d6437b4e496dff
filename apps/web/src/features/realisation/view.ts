import type { View } from '../../shared/view';

export const realisationView: View = {
  stage: 'link',
  name: 'Layers',
  help: 'From the top: how much of each layer is realised by the next, and where nothing is.',
  path: 'link/layers',
  looksThrough: true,
  load: async () => (await import('./RealisationPage')).RealisationPage,
};
