import { figure } from '@coomb/core';
import type { View } from '../../shared/view';

export const benchView: View = {
  stage: 'link',
  name: 'Bench',
  help: 'Drag from one side to the other, or mark with the arrow keys and press Enter.',
  looksThrough: true,
  path: 'link',
  waits: (project) => `${figure(project.waiting.link)} to link`,
  keys: [
    ['↑ ↓', 'Move in the outline'],
    ['← →', 'Change side'],
    ['Enter', 'Link the two marked items'],
    ['Shift Enter', 'The same, choosing the kind of link anew'],
    ['A', 'Take the marked candidate, else the likeliest, where the right side is ordered so'],
    ['X', 'Refuse it: it stays away until one of the two says something else'],
    ['Delete', 'Remove the link between them'],
    ['E', 'Hang the link on another item, give it another kind or a field'],
    ['N', 'Next item without a link on the left'],
    ['O', 'Open the marked item'],
    ['U', 'Next use of the marked item, where it is used in several places'],
  ],
  load: async () => (await import('./BenchPage')).BenchPage,
};
