import { z } from 'zod';
import { idSchema, projectParams } from './common.js';
import { endpoint } from './endpoint.js';
import { conditionSchema } from './register.js';

/** A named selection: conditions composed by choosing, and items pinned to it or left out by hand. */
export const lensSchema = z.object({
  kinds: z.array(z.string().min(1).max(200)).max(100).default([]),
  others: z.enum(['shown', 'hidden']).default('shown'),
  conditions: z.array(conditionSchema).max(30).default([]),
  match: z.enum(['all', 'any']).default('all'),
  pinned: z.array(idSchema).max(5000).default([]),
  leftOut: z.array(idSchema).max(5000).default([]),
});
export type LensBody = z.output<typeof lensSchema>;

export const lookThrough = endpoint({
  method: 'GET',
  path: '/projects/:project/lenses/:lens',
  summary:
    'Which items are seen through a kept lens, by their nodes; how many links join what is seen with what is not; and conditions that ask for what is not there',
  params: projectParams.extend({ lens: idSchema }),
  reply: z.object({
    seq: z.number(),
    name: z.string(),
    /** Items, without headings. */
    items: z.number(),
    nodes: z.array(z.number()),
    linksWithin: z.number(),
    linksAcross: z.number(),
    unknown: z.array(z.number()),
  }),
});

export const holdInLens = endpoint({
  method: 'POST',
  path: '/projects/:project/lenses/:lens/hold',
  summary: 'Pin items to a lens, leave them out of it, or let its conditions decide again',
  params: projectParams.extend({ lens: idSchema }),
  body: z.object({ items: z.array(idSchema).min(1).max(5000), as: z.enum(['pinned', 'leftOut', 'asked']) }),
  reply: z.object({ seq: z.number(), changed: z.number() }),
});
