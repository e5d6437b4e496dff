import type { View } from '../../shared/view';

export const allLinksView: View = {
  stage: 'link',
  name: 'All links',
  help: 'Every link of the project: filter, group, choose many, confirm or change them.',
  looksThrough: true,
  path: 'link/all',
  keys: [
    ['↑ ↓', 'Move in the list'],
    ['Space', 'Choose the marked link; with Shift and arrows, all on the way'],
    ['Ctrl A', 'Choose all links that the filter leaves'],
    ['Enter', 'Open the item that the link comes from'],
    ['T', 'Open the item that the link leads to'],
    ['C', 'The links hold'],
    ['E', 'Change kind, fields or an end'],
    ['Delete', 'Remove the links'],
    ['P', 'Paste links from a spreadsheet'],
  ],
  load: async () => (await import('./AllLinksPage')).AllLinksPage,
};
