import type { View } from '../../shared/view';

export const comparingView: View = {
  stage: 'home',
  name: 'Compare',
  help: 'What came, went, changed and moved between an earlier moment and the one that is looked at.',
  looksThrough: true,
  path: 'changes/between',
  load: async () => (await import('./ComparingPage')).ComparingPage,
};
