import type { View } from '../../shared/view';

export const traceTreeView: View = {
  stage: 'link',
  name: 'Trace tree',
  help: 'From one item, everything that traces lead to: upstream at the left, downstream at the right.',
  path: 'link/tree',
  addresses: ['link/tree', 'link/tree/:item'],
  keys: [
    ['Arrow keys', 'Go from item to item'],
    ['Space', 'Unfold, fold'],
    ['G', 'To the first place of an item that is shown again'],
    ['R', 'Grow the tree from the chosen item'],
    ['A', 'Add a related item'],
    ['D', 'Also what only follows from parts inside, dashed'],
    ['O', 'Open the sheet of the chosen item'],
    ['+ − 0', 'Zoom, show all'],
  ],
  looksThrough: true,
  load: async () => (await import('./TraceTreePage')).TraceTreePage,
};
