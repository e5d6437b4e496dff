import { z } from 'zod';

/** What a structure shows, as its address and kept ones say it; lists are parted by commas. */
export const structureAddress = z.object({
  collections: z.string().default(''),
  kinds: z.string().default(''),
  below: z.string().default(''),
  marks: z.string().default(''),
  level: z.enum(['', '1', '2', '3', '4']).default(''),
  by: z.enum(['outline', 'order', 'groups']).default('outline'),
  seconds: z.enum(['10', '30', '120']).default('10'),
  seed: z.coerce.number().int().min(1).max(1_000_000).default(1).catch(1),
  show: z.enum(['linked', 'all']).default('linked'),
  size: z.enum(['names', 'whole']).default('names'),
  kept: z.string().default(''),
});
export type StructureAddress = z.output<typeof structureAddress>;
