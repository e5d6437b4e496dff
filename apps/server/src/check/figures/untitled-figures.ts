import type { FigureFamily } from './figure-family.js';

/** `untitled`: items that have no title of their own yet. */
export const untitledFigures = {
  id: 'untitled',
  describe: () => ({ label: 'Untitled items', explains: 'Items that nobody has given a title yet.' }),
  collect: (state) => {
    const found: number[] = [];
    state.items.forEach((item, node) => {
      if (item.title === 'Untitled' && !item.withdrawn && !item.heading) found.push(node);
    });
    return found;
  },
} satisfies FigureFamily;
