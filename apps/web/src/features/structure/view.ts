import type { View } from '../../shared/view';

export const structureView: View = {
  stage: 'shape',
  name: 'Structure',
  help: 'What depends on what: a row depends on the columns in which it has a mark. Ordered so that cycles stand out, or in groups that belong together.',
  looksThrough: true,
  path: 'shape/structure',
  keys: [
    ['Arrow keys', 'Move from cell to cell'],
    ['Enter', 'What the cell consists of'],
    ['O', 'Open the row’s item'],
    ['+', 'Unfold the row'],
    ['−', 'Fold the row into what it is a part of'],
    ['I', 'Look into the row only'],
  ],
  load: async () => (await import('./StructurePage')).StructurePage,
};
