import { z } from 'zod';
import type { SavedViewSort } from './saved-view-sort.js';

const schema = z.object({
  /** Ids of the collections; empty for what the view chooses itself. */
  left: z.string().max(100).default(''),
  right: z.string().max(100).default(''),
  only: z.enum(['all', 'unlinked']).default('all'),
  order: z.enum(['outline', 'likely']).default('outline'),
  leftKind: z.string().max(120).default(''),
  rightKind: z.string().max(120).default(''),
});

export const benchSort: SavedViewSort<z.infer<typeof schema>> = { sort: 'bench', label: 'Bench', path: 'link', schema, upgrades: [] };
