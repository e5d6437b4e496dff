import { itemListKeys } from '../acting/item-list-keys';
import type { View } from '../../shared/view';

export const searchView: View = {
  stage: 'home',
  name: 'Found',
  help: 'All items that say some words: choose many, and do something with them.',
  addresses: ['found'],
  keys: itemListKeys,
  looksThrough: true,
  load: async () => (await import('./SearchPage')).SearchPage,
};
