import type { View } from '../../shared/view';

export const compositionView: View = {
  stage: 'shape',
  name: 'Composition',
  help: 'What a system is made of, use by use. A link made here holds in one use only, or in every use of the component.',
  path: 'shape/composition',
  keys: [
    ['↑ ↓', 'Move from use to use'],
    ['→ ←', 'Unfold, fold'],
    ['H', 'Link here only, or everywhere'],
    ['Enter', 'Link the chosen use with the row marked in the list'],
    ['O', 'Open the sheet of the component'],
  ],
  looksThrough: true,
  load: async () => (await import('./CompositionPage')).CompositionPage,
};
