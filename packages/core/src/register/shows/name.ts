import type { AnyShow } from './show.js';

export const reference: AnyShow = {
  sort: 'reference',
  offers: () => [{ label: 'Reference', type: 'words' }],
  read: ({ items }, node) => items[node]!.reference,
};
export const title: AnyShow = { sort: 'title', offers: () => [{ label: 'Title', type: 'words' }], read: ({ items }, node) => items[node]!.title };
