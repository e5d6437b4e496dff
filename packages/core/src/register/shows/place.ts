import type { AnyShow } from './show.js';

export const collection: AnyShow = {
  sort: 'collection',
  offers: () => [{ label: 'Collection', type: 'choice' }],
  read: ({ items, nameOfCollection }, node) => nameOfCollection(items[node]!.collection),
};

/** Titles of what it stands in, from the top. */
export const place: AnyShow = {
  sort: 'place',
  offers: () => [{ label: 'Section', type: 'words' }],
  read: ({ items }, node) => {
    const titles: string[] = [];
    for (let at = items[node]!.parent; at >= 0; at = items[at]!.parent) titles.unshift(items[at]!.title);
    return titles.length > 0 ? titles.join(' › ') : null;
  },
};
