import type { View } from '../../shared/view';

export const itemView: View = {
  stage: 'home',
  name: 'Item',
  help: 'One item: its text, its trail, where it came from, its evidence and its changes.',
  addresses: ['items/:item'],
  load: async () => (await import('./ItemPage')).ItemPage,
};
