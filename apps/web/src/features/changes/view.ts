import type { View } from '../../shared/view';

export const changesView: View = {
  stage: 'home',
  name: 'Changes',
  help: 'Everything that was done, newest first. Nothing is ever erased.',
  path: 'changes',
  load: async () => (await import('./ChangesPage')).ChangesPage,
};

export const changeView: View = {
  stage: 'home',
  name: 'Change',
  help: 'What one action changed, value by value.',
  addresses: ['changes/:seq'],
  load: async () => (await import('./BatchPage')).BatchPage,
};
