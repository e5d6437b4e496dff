import type { View } from '../../shared/view';

export const matrixView: View = {
  stage: 'link',
  name: 'Trace matrix',
  help: 'Rows against columns, a mark for each link. Rows and columns without any are shaded.',
  looksThrough: true,
  path: 'link/matrix',
  keys: [
    ['Arrow keys', 'Move from cell to cell'],
    ['Ctrl with arrows', 'Move to the next linked cell'],
    ['Enter or Space', 'Link or unlink'],
    ['O', 'Open the row’s item'],
    ['E', 'Hang the link of the cell on another item, give it another kind or a field'],
    ['G', 'Next gap'],
    ['X', 'Swap rows and columns'],
  ],
  load: async () => (await import('./MatrixPage')).MatrixPage,
};
