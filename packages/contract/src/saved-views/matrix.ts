import { z } from 'zod';
import type { SavedViewSort } from './saved-view-sort.js';

const ids = z.string().max(4000).default('');
const schema = z.object({
  /** Ids of collections and kinds, and of what is above a side, parted by commas; empty for what the view chooses itself. */
  rows: ids,
  columns: ids,
  rowKinds: ids,
  columnKinds: ids,
  rowBelow: ids,
  columnBelow: ids,
  /** What a side is grouped by: what is shown, and of which field. */
  rowsBy: z.string().max(300).default(''),
  columnsBy: z.string().max(300).default(''),
  /** The ways that are marked; empty for every kind of link. */
  marks: z.string().max(20_000).default(''),
  show: z.enum(['all', 'rowGaps', 'columnGaps', 'linked']).default('all'),
  order: z.enum(['outline', 'number', 'diagonal']).default('outline'),
  /** How deep both outlines are unfolded; empty for all of it. */
  level: z.enum(['', '1', '2', '3']).default(''),
  uses: z.enum(['lines', 'together']).default('lines'),
});

/** A matrix of one kind of link marked it from whichever end a row's item stood at. */
function markKind({ kind, ...body }: Record<string, unknown>): Record<string, unknown> {
  if (typeof kind !== 'string' || kind === '') return body;
  return { ...body, marks: JSON.stringify((['from', 'to'] as const).map((end) => [{ linkKind: kind, end }])) };
}

export const matrixSort: SavedViewSort<z.infer<typeof schema>> = { sort: 'matrix', label: 'Trace matrix', path: 'link/matrix', schema, upgrades: [markKind] };
