import { z } from 'zod';
import { briefSchema, projectParams, stateSchema } from './common.js';
import { endpoint } from './endpoint.js';

const affected = z.object({
  item: briefSchema,
  /** Links from the nearest of the items that change. */
  distance: z.number(),
  /** Ways that share no item between their ends; null where there was too much to count them. */
  paths: z.number().nullable(),
  /** A shortest way, from one of the items that change: which one, and the links that lead on. */
  from: z.string(),
  way: z.array(z.object({ phrase: z.string(), reference: z.string(), suspect: z.boolean(), usage: z.string().nullable() })),
});
export type AffectedItem = z.infer<typeof affected>;

export const readImpact = endpoint({
  method: 'POST',
  path: '/projects/:project/impact',
  summary:
    'What a change of some items would touch: what rests on them and what they rest on, with the way there, and evidence that would turn stale; nothing is stored',
  params: projectParams,
  body: z.object({
    /** By id or reference. */
    items: z.array(z.string().max(200)).min(1).max(2000),
    /** Link kinds that are followed; all of them when nothing is said. */
    kinds: z.array(z.string()).max(200).optional(),
    /** Links at most from an item that changes. */
    most: z.number().int().min(1).max(50).optional(),
  }),
  reply: z.object({
    roots: z.array(briefSchema),
    downstream: z.object({ total: z.number(), items: z.array(affected) }),
    upstream: z.object({ total: z.number(), items: z.array(affected) }),
    /** Items whose verification state would be another, and what it is now. */
    stale: z.array(z.object({ item: briefSchema, becomes: stateSchema })),
    /** Links that would become suspect. */
    suspect: z.number(),
    /** Links of theirs that are suspect already. */
    already: z.number(),
  }),
});
