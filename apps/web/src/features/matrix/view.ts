import type { View } from '../../shared/view';

export const matrixView: View = {
  stage: 'link',
  name: 'Trace matrix',
  help: 'Rows against columns, a mark for each kind of link, or for a way through items between. Rows and columns without any are shaded.',
  looksThrough: true,
  path: 'link/matrix',
  keys: [
    ['Arrow keys', 'Move from cell to cell; with Shift choose several'],
    ['Ctrl with arrows', 'Move to the next linked cell'],
    ['Enter or Space', 'Link or unlink; link each row with each column of several cells'],
    ['Delete', 'Take the links of the cells away'],
    ['Ctrl A, Ctrl C', 'Choose all cells; copy them for a spreadsheet'],
    ['O', 'Open the row’s item'],
    ['E', 'Hang the link of the cell on another item, give it another kind or a field'],
    ['G', 'Next gap'],
    ['X', 'Swap rows and columns'],
  ],
  load: async () => (await import('./MatrixPage')).MatrixPage,
};
