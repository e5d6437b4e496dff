import type { View } from '../../shared/view';

export const inHandView: View = {
  stage: 'check',
  name: 'In hand',
  help: 'What people took on or were handed: work it off, hand it on, say that it is done.',
  path: 'check/in-hand',
  keys: [
    ['↑ ↓', 'Move in the list'],
    ['Space', 'Choose the marked one; with Shift and arrows, all on the way'],
    ['Enter', 'Go where it is worked off'],
    ['O', 'Open the item'],
    ['D', 'Done, or not done after all'],
    ['T', 'Take it on oneself'],
    ['H', 'Hand it on'],
  ],
  looksThrough: true,
  load: async () => (await import('./InHandPage')).InHandPage,
};
