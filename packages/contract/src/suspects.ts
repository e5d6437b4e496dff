import { z } from 'zod';
import { briefSchema, idSchema, projectParams, timeSchema } from './common.js';
import { endpoint } from './endpoint.js';
import { errandSchema } from './errands.js';

const suspectLink = z.object({
  id: idSchema,
  /** How it reads from the item that changed. */
  phrase: z.string(),
  other: briefSchema,
  /** The change up to which the item was known when the link was last confirmed: those of the same number differ alike. */
  since: z.number(),
  /** The other end changed as well. */
  both: z.boolean(),
  usage: z.string().nullable(),
  errand: errandSchema.nullable(),
});
export type SuspectLink = z.infer<typeof suspectLink>;

export const suspectGroup = z.object({
  /** The item that came to say something else, and the change in which it last did. */
  item: briefSchema,
  seq: z.number(),
  at: timeSchema,
  person: z.string(),
  action: z.string(),
  links: z.array(suspectLink),
});
export type SuspectGroup = z.infer<typeof suspectGroup>;

export const listSuspects = endpoint({
  method: 'GET',
  path: '/projects/:project/suspects',
  summary: 'Suspect links, grouped by what changed, the newest change first',
  params: projectParams,
  query: z.object({
    limit: z.coerce.number().int().min(1).max(500).default(200),
    /** Only links of which an end is seen through it. */
    lens: idSchema.optional(),
  }),
  reply: z.object({ seq: z.number(), links: z.number(), total: z.number(), groups: z.array(suspectGroup) }),
});

export const findSuspectsAt = endpoint({
  method: 'POST',
  path: '/projects/:project/suspects/at',
  summary: 'Suspect links at some items, each seen from the end that changed last; nothing is stored',
  params: projectParams,
  body: z.object({ items: z.array(idSchema).min(1).max(5000) }),
  reply: z.object({
    seq: z.number(),
    links: z.array(z.object({ id: idSchema, item: briefSchema, phrase: z.string(), other: briefSchema })),
  }),
});
