import type { View } from '../../shared/view';

export const registerView: View = {
  stage: 'shape',
  name: 'Register',
  help: 'Items as rows of chosen columns, values through links among them: filter, sort, group, and write in the cells as in a spreadsheet.',
  looksThrough: true,
  path: 'shape/register',
  keys: [
    ['Arrow keys', 'Go from cell to cell; with Shift, choose a range'],
    ['Enter, F2 or a letter', 'Write in the cell; Enter goes on below, Tab beside, Esc leaves it as it was'],
    ['Ctrl C, Ctrl V', 'Copy the range; paste cells of a spreadsheet'],
    ['Ctrl D', 'Fill the range with what its first row says'],
    ['Delete', 'Empty the cells'],
    ['Alt ↓', 'What can be done with the column: sort, group, hold, hide, sum up'],
    ['Ctrl A', 'Choose everything'],
    ['O', 'In a cell that is computed: open the item'],
    ['E', 'In a cell that is computed: set a field of all rows of the range'],
  ],
  load: async () => (await import('./RegisterPage')).RegisterPage,
};
