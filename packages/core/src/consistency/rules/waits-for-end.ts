import type { ConsistencyRule } from '../consistency-rule.js';

export const waitsForEnd: ConsistencyRule = {
  id: 'waits-for-end',
  label: 'Waits for its other end',
  explains: 'A file named something that has not come. The link joins when it comes; it counts for nothing until then.',
  weight: 'look',
  find: ({ waiting, items }) =>
    waiting
      .filter(({ node }) => !items[node]!.withdrawn)
      .map(({ id, node, phrase, target }) => ({
        nodes: [node],
        links: [],
        waiting: id,
        says: `${phrase} ${target}, which has not come`,
        mendings: [{ sort: 'letGo', waiting: id }],
      })),
  examples: {
    fires: [{ items: { 'SYS-1': 'requirement' }, links: [], waiting: [{ item: 'SYS-1', target: 'plant.xmi#b7' }] }],
    silent: [
      { items: { 'SYS-1': 'requirement' }, links: [] },
      { items: { 'SYS-1': { role: 'requirement', withdrawn: true } }, links: [], waiting: [{ item: 'SYS-1', target: 'plant.xmi#b7' }] },
    ],
  },
};
