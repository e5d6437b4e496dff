import type { View } from '../../shared/view';

export const readView: View = {
  stage: 'shape',
  name: 'Read',
  help: 'A collection set for reading, written in place.',
  path: 'shape',
  looksThrough: true,
  addresses: ['shape', 'shape/:collection'],
  waits: (project) => (project.waiting.shape === 0 ? '' : `${project.waiting.shape} untitled`),
  keys: [
    ['↑ ↓', 'Move from item to item'],
    ['Enter', 'Edit in place'],
    ['Ctrl Enter', 'Save'],
    ['Alt Enter', 'Save and write the next one below'],
    ['Ctrl Shift Enter', 'Split the item at the caret'],
    ['J', 'Join the next item to this one'],
    ['A', 'Add an item after this one'],
    ['Alt ↑ ↓', 'Move the item'],
    ['Alt → ←', 'Move it a level down or up'],
    ['Space, Ctrl click', 'Choose an item, or let it go'],
    ['Shift ↑ ↓, Shift click', 'Choose a range'],
    ['Ctrl A, Esc', 'Choose all, let go of all'],
    ['Delete', 'Withdraw what is chosen, or the marked item'],
  ],
  load: async () => (await import('./ReadPage')).ReadPage,
};
