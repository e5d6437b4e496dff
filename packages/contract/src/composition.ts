import { z } from 'zod';
import { briefSchema, idSchema, projectParams } from './common.js';
import { endpoint } from './endpoint.js';

/** One use of a component in another, or the system itself where the tree begins. */
export const useSchema = z.object({
  item: briefSchema,
  /** What it is a use of. */
  type: briefSchema.nullable(),
  /** Ids of items from the root down to the use, and to what it is a use of. */
  path: z.array(idSchema),
  /** Uses directly below. */
  rows: z.number(),
  /** All uses below, one by one; null where there are more than can be counted. */
  below: z.number().nullable(),
  /** What it is a use of stands above it already: the tree is cut here. */
  repeats: z.boolean(),
  /** Links that trace something: those that hold in this use only, those that hold in every use, and those that hold only in other uses. */
  here: z.number(),
  everywhere: z.number(),
  elsewhere: z.number(),
});
export type Use = z.infer<typeof useSchema>;

export const listWholes = endpoint({
  method: 'GET',
  path: '/projects/:project/composition',
  summary: 'Components that have parts, those first that nothing else is made of; the largest first',
  params: projectParams,
  reply: z.object({ wholes: z.array(useSchema.extend({ used: z.boolean() })) }),
});

export const listUses = endpoint({
  method: 'GET',
  path: '/projects/:project/composition/uses',
  summary: 'The uses directly below one, by its path of ids from the root, parted by commas',
  params: projectParams,
  query: z.object({ path: z.string().max(4000) }),
  reply: z.object({ at: useSchema, uses: z.array(useSchema) }),
});
