import { z } from 'zod';
import type { SavedViewSort } from './saved-view-sort.js';

const ids = z.string().max(4000).default('');
const schema = z.object({
  /** Ids of collections and kinds, and of what is looked into, parted by commas. */
  collections: ids,
  kinds: ids,
  below: ids,
  /** The ways that are dependencies; empty for every kind of link. */
  marks: z.string().max(20_000).default(''),
  level: z.enum(['', '1', '2', '3', '4']).default(''),
  by: z.enum(['outline', 'order', 'groups']).default('outline'),
  seconds: z.enum(['10', '30', '120']).default('10'),
  seed: z.coerce.number().int().min(1).max(1_000_000).default(1),
  show: z.enum(['linked', 'all']).default('linked'),
  size: z.enum(['names', 'whole']).default('names'),
  weights: z.string().max(1000).default(''),
  kept: z.string().max(100).default(''),
  /** What was found and is to be shown again: groups of ids, as JSON. */
  result: z.string().max(400_000).default(''),
});

export const structureSort: SavedViewSort<z.infer<typeof schema>> = { sort: 'structure', label: 'Structure', path: 'shape/structure', schema, upgrades: [] };
