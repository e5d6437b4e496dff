import type { View } from '../../shared/view';

export const sectionView: View = {
  stage: 'home',
  name: 'Section',
  help: 'The project cut through its layers: every item, and where ground is missing.',
  looksThrough: true,
  path: '',
  keys: [
    ['Arrow keys', 'Move from item to item, layer to layer'],
    ['Enter', 'Open the item'],
    ['Esc', 'Let go of the selection'],
  ],
  load: async () => (await import('./SectionPage')).SectionPage,
};
