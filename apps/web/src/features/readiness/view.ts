import { figure } from '@coomb/core';
import type { View } from '../../shared/view';

export const readinessView: View = {
  stage: 'check',
  name: 'Readiness',
  help: 'Is it designed, tested and shown to work? Every number opens its items; “why?” stands on each item.',
  path: 'check',
  waits: (project) => `${figure(project.waiting.check)} open`,
  load: async () => (await import('./ReadinessPage')).ReadinessPage,
};

export const findingsView: View = {
  stage: 'check',
  name: 'Items behind a number',
  help: 'The items behind a number, with what was found at each.',
  addresses: ['check/figure/:figure'],
  keys: [
    ['↑ ↓', 'Move in the list'],
    ['Space', 'Choose the marked item; with Shift and arrows, all on the way'],
    ['Ctrl A', 'Choose all'],
    ['Enter', 'Open the item'],
    ['E', 'Set a field'],
    ['C', 'Confirm suspect links'],
    ['H', 'Hand on'],
    ['W', 'Waive a rule that they miss'],
  ],
  load: async () => (await import('./FigurePage')).FigurePage,
};
