import type { View } from '../../shared/view';

export const searchView: View = {
  stage: 'home',
  name: 'Found',
  help: 'All items that say some words: choose many, and do something with them.',
  addresses: ['found'],
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
  load: async () => (await import('./SearchPage')).SearchPage,
};
