import { figure } from '@coomb/core';
import { itemListKeys } from '../acting/item-list-keys';
import type { View } from '../../shared/view';

export const readinessView: View = {
  stage: 'check',
  name: 'Readiness',
  help: 'Is it designed, tested and shown to work? Every number opens its items; “why?” stands on each item.',
  path: 'check',
  looksThrough: true,
  waits: (project) => `${figure(project.waiting.check)} open`,
  load: async () => (await import('./ReadinessPage')).ReadinessPage,
};

export const findingsView: View = {
  stage: 'check',
  name: 'Items behind a number',
  help: 'The items behind a number, with what was found at each.',
  addresses: ['check/figure/:figure'],
  looksThrough: true,
  keys: itemListKeys,
  load: async () => (await import('./FigurePage')).FigurePage,
};
