import { z } from 'zod';
import { idSchema, projectParams } from './common.js';
import { endpoint } from './endpoint.js';

export const addRelated = endpoint({
  method: 'POST',
  path: '/projects/:project/items/:item/related',
  summary: 'Make an item where its kind is at home, linked with this one, in one change',
  params: projectParams.extend({ item: z.string().max(200) }),
  body: z.object({
    title: z.string().trim().min(1).max(500),
    kind: z.string().max(100),
    linkKind: z.string().max(120),
    /** The new item stands at the `from` end. */
    reversed: z.boolean(),
    /** Where it goes, if not to its home. */
    collection: idSchema.optional(),
    parent: idSchema.optional(),
  }),
  reply: z.object({ seq: z.number(), item: idSchema, reference: z.string() }),
});
