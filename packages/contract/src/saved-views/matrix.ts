import { z } from 'zod';
import type { SavedViewSort } from './saved-view-sort.js';

const schema = z.object({
  /** Ids of the collections, and the key of a link kind; empty for what the view chooses itself. */
  rows: z.string().max(100).default(''),
  columns: z.string().max(100).default(''),
  kind: z.string().max(120).default(''),
  show: z.enum(['all', 'rowGaps', 'columnGaps']).default('all'),
  uses: z.enum(['lines', 'together']).default('lines'),
});

export const matrixSort: SavedViewSort<z.infer<typeof schema>> = { sort: 'matrix', label: 'Trace matrix', path: 'link/matrix', schema, upgrades: [] };
