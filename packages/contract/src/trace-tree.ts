import { z } from 'zod';
import { briefSchema, idSchema, projectParams } from './common.js';
import { endpoint } from './endpoint.js';

const places = z.array(z.string().max(4000)).max(2000).default([]);

/** One place of a trace tree: an item, and the link that leads to it. */
export const tracePlace = z.object({
  key: z.string(),
  item: briefSchema,
  /** Index of the place that it hangs on, or -1 for the root. */
  parent: z.number(),
  /** How the link reads from the place that it hangs on. */
  phrase: z.string(),
  link: idSchema.nullable(),
  suspect: z.boolean(),
  /** Names of what lies inside the item before and has the link, where the step only follows from that; null for a link of its own. */
  through: z.array(z.string()).nullable(),
  /** The usage that the link holds in only. */
  usage: z.string().nullable(),
  /** Index of the place where the item was met first, or -1. */
  again: z.number(),
  /** Links that lead on from it and are not shown. */
  hidden: z.number(),
});
export type TracePlaceReply = z.infer<typeof tracePlace>;

export const growTrace = endpoint({
  method: 'POST',
  path: '/projects/:project/trace-tree',
  summary: 'What traces lead to from an item, as a tree on either side: upstream what it rests on, downstream what rests on it; nothing is stored',
  params: projectParams,
  body: z.object({
    item: z.string().max(200),
    /** Link kinds that are followed; all of them when nothing is said. */
    kinds: z.array(z.string()).max(200).optional(),
    up: z.number().int().min(0).max(20).default(2),
    down: z.number().int().min(0).max(20).default(2),
    /** Whether steps are shown that follow from what items are made of. */
    derived: z.boolean().default(false),
    opened: places,
    closed: places,
  }),
  reply: z.object({ upstream: z.array(tracePlace), downstream: z.array(tracePlace), isCut: z.boolean() }),
});
