import { z } from 'zod';
import { lensSchema } from '../lens.js';
import { wholeNumberText } from '../common.js';
import type { SavedViewSort } from './saved-view-sort.js';

/** A lens, as its address keeps it; with what it is for. */
const schema = z.object({
  lens: z
    .string()
    .max(400_000)
    .refine((text) => readLensText(text) !== undefined, 'That is no lens'),
  note: z.string().max(1000).default(''),
  /** Whose lens it is, by name; whoever kept it, where nobody is said. */
  owner: z.string().max(120).default(''),
  /** The change whose moment belongs to it, as for a review; 0 where none does. */
  moment: wholeNumberText.default(0),
});

/** The lens that a text holds; undefined where it is none. */
export function readLensText(text: string) {
  try {
    const parsed = lensSchema.safeParse(JSON.parse(text));
    return parsed.success ? parsed.data : undefined;
  } catch {
    return undefined;
  }
}

export const lensSort: SavedViewSort<z.infer<typeof schema>> = { sort: 'lens', label: 'Lens', path: 'shape/lenses', schema, upgrades: [] };
