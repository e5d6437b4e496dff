import { z } from 'zod';

/** What of the composition the address says. */
export const address = z.object({
  /** The system whose composition is shown. */
  root: z.string().default(''),
  /** Path of the use that is chosen, ids parted by commas. */
  use: z.string().default(''),
  list: z.string().default(''),
  only: z.enum(['all', 'linked']).default('all'),
  hold: z.enum(['here', 'everywhere']).default('here'),
});
