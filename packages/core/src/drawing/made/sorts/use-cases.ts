import { buildAmong } from './among.js';
import { findItem, type MadeSortOf } from './made-sort.js';

/** Use cases within the boundary of what they are use cases of, and who takes part in them. */
export const useCasesSort: MadeSortOf = {
  sort: 'useCases',
  label: 'Use cases and actors',
  explains: 'use cases within a boundary, and who takes part in them',
  about: 'scope',
  hasLevels: false,
  build: (ground, definition) => {
    const root = findItem(ground, definition.about);
    const name = root === undefined ? (ground.collections.find(({ id }) => id === definition.about)?.name ?? 'The system') : ground.titleOf(root);
    return buildAmong(ground, definition, ['useCase', 'actor'], {
      node: { key: 'boundary', item: root ?? -1, name, keyword: '', figure: 'box', parts: [], branch: -1, inside: -1 },
      holds: (node) => ground.hasRole(node, 'useCase'),
    });
  },
};
