import { z } from 'zod';
import { colourKeySchema } from '../colour-key.js';
import type { SavedViewSort } from './saved-view-sort.js';

const schema = z.object({
  key: z
    .string()
    .max(40_000)
    .refine((text) => readKeyText(text) !== undefined, 'That is no colour key'),
});

/** The colour key that a text holds; undefined where it is none. */
export function readKeyText(text: string) {
  try {
    const parsed = colourKeySchema.safeParse(JSON.parse(text));
    return parsed.success ? parsed.data : undefined;
  } catch {
    return undefined;
  }
}

export const colourKeySort: SavedViewSort<z.infer<typeof schema>> = { sort: 'colourKey', label: 'Colour key', path: 'shape/register', schema, upgrades: [] };
