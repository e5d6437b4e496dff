import { z } from 'zod';
import { registerWhatSchema } from '../register.js';
import type { SavedViewSort } from './saved-view-sort.js';

/** What a register shows, as its address keeps it: apart from where, so that one serves many places. */
const schema = z.object({
  what: z
    .string()
    .max(20_000)
    .refine((text) => {
      try {
        return registerWhatSchema.safeParse(JSON.parse(text)).success;
      } catch {
        return false;
      }
    }, 'That is no register'),
});

export const registerSort: SavedViewSort<z.infer<typeof schema>> = { sort: 'register', label: 'Register', path: 'shape/register', schema, upgrades: [] };
