import type { View } from '../../shared/view';

export const suspectsView: View = {
  stage: 'link',
  name: 'Suspect links',
  help: 'Read what changed, then say link by link whether it still holds.',
  path: 'link/suspect',
  keys: [
    ['↑ ↓', 'Move from link to link'],
    ['Space', 'Choose the marked link; with Shift and arrows, all on the way'],
    ['C', 'The marked link, or those chosen, still hold'],
    ['G', 'Choose all links of the same change'],
    ['Enter', 'Open the item at the other end'],
    ['H', 'Hand on to a person'],
    ['Delete', 'Remove the marked link, or those chosen'],
  ],
  looksThrough: true,
  load: async () => (await import('./SuspectsPage')).SuspectsPage,
};
