import { z } from 'zod';
import { batchReply, briefSchema, idSchema, projectParams, wholeNumber } from './common.js';
import { endpoint } from './endpoint.js';
import { fieldsSchema } from './scheme.js';

/** A usage of an item: ids of items from a root down to it. */
export const usagePath = z.array(idSchema).min(2).max(50);

/** The same in an address, parted by commas. */
export const usageQuery = z.string().max(4000);

/** Where an item is used. */
export const usageSchema = z.object({
  /** Null for a path that nothing was said of yet. */
  id: idSchema.nullable(),
  path: z.array(briefSchema),
  says: z.string(),
  /** How many links hold here and not everywhere. */
  links: z.number(),
  /** What fields say here and nowhere else. */
  fields: fieldsSchema,
  /** The path leads there no more. */
  gone: z.boolean(),
  /** To be said with a change; 0 while nothing is stored. */
  revision: z.number(),
});
export type Usage = z.infer<typeof usageSchema>;

export const listUsages = endpoint({
  method: 'GET',
  path: '/projects/:project/items/:item/usages',
  summary: 'Paths of parts that lead down to an item, each with what holds in it only; `cut` where there are more than are told',
  params: projectParams.extend({ item: z.string().max(200) }),
  reply: z.object({ usages: z.array(usageSchema), cut: z.boolean() }),
});

export const listUsed = endpoint({
  method: 'GET',
  path: '/projects/:project/usages',
  summary: 'Items of which something holds in one usage only, each with all its usages: node, paths of ids and how they read',
  params: projectParams,
  reply: z.object({ items: z.array(z.object({ node: z.number(), usages: z.array(z.object({ path: z.array(idSchema), says: z.string() })) })) }),
});

export const setInUsage = endpoint({
  method: 'PATCH',
  path: '/projects/:project/usages',
  summary: 'Say what fields of an item hold in one usage only; nothing makes them as they are everywhere. `revision` is the one that was seen',
  params: projectParams,
  body: z.object({ path: usagePath, fields: fieldsSchema, revision: wholeNumber }),
  reply: batchReply,
});
