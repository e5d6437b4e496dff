import type { View } from '../../shared/view';

export const findingsListView: View = {
  stage: 'check',
  name: 'Findings',
  help: 'What rules find: gaps, evidence, links. Choose many; mend, waive or hand them on.',
  path: 'check/findings',
  keys: [
    ['↑ ↓', 'Move in the list'],
    ['Space', 'Choose the marked finding; with Shift and arrows, all on the way'],
    ['Ctrl A', 'Choose all'],
    ['Enter', 'Open the item'],
    ['M', 'Mend in the first way that is proposed'],
    ['B', 'Link it on the bench, where something is not linked'],
    ['C', 'Confirm suspect links of the items'],
    ['E', 'Set a field'],
    ['W', 'Waive'],
    ['H', 'Hand on'],
  ],
  looksThrough: true,
  load: async () => (await import('./FindingsPage')).FindingsPage,
};
