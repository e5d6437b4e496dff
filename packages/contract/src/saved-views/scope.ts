import { z } from 'zod';
import { registerWhereSchema } from '../register.js';
import type { SavedViewSort } from './saved-view-sort.js';

/** Where a register looks, as its address keeps it: apart from what it shows. */
const schema = z.object({
  where: z
    .string()
    .max(20_000)
    .refine((text) => {
      try {
        return registerWhereSchema.safeParse(JSON.parse(text)).success;
      } catch {
        return false;
      }
    }, 'That is no place'),
});

export const scopeSort: SavedViewSort<z.infer<typeof schema>> = {
  sort: 'scope',
  label: 'Where a register looks',
  path: 'shape/register',
  schema,
  upgrades: [],
};
