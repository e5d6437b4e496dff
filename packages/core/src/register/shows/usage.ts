import type { AnyShow } from './show.js';

/** The parts that lead to it: of a row that is one use, its path; of an item, all of them. */
export const usage: AnyShow = {
  sort: 'usage',
  offers: () => [{ label: 'Used in', type: 'several' }],
  read: ({ uses }, node, _, use) => {
    const all = use ? [use] : (uses?.of(node) ?? []);
    return all.length > 0 ? all.map(({ says }) => says) : null;
  },
};
