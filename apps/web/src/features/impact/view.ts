import type { View } from '../../shared/view';

export const impactView: View = {
  stage: 'link',
  name: 'Impact',
  help: 'Before something is changed: what rests on it, what it rests on, and which evidence would turn stale.',
  path: 'link/impact',
  keys: [
    ['↑ ↓', 'Move in the list'],
    ['Space', 'Choose the marked item; with Shift and arrows, all on the way'],
    ['Enter', 'Open the marked item'],
    ['H', 'Hand on to a person as something to look at'],
    ['T', 'List or tree'],
  ],
  looksThrough: true,
  load: async () => (await import('./ImpactPage')).ImpactPage,
};
