import { buildAmong } from './among.js';
import type { MadeSortOf } from './made-sort.js';

/** Functions or steps, and what leads from one to the next. */
export const flowSort: MadeSortOf = {
  sort: 'flow',
  label: 'Flow',
  explains: 'functions or steps, and what leads from one to the next',
  about: 'scope',
  hasLevels: false,
  build: (ground, definition) => buildAmong(ground, definition, ['function', 'step']),
};
