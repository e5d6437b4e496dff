import { z } from 'zod';
import { idSchema, projectParams } from './common.js';
import { endpoint } from './endpoint.js';

/** Colours for what items say in one of their values. */
export const colourKeySchema = z.object({
  shown: z.object({ sort: z.string().min(1).max(200), of: z.string().min(1).max(200).optional() }),
  ranges: z.boolean().default(false),
  entries: z
    .array(
      z.object({ value: z.string().max(500), label: z.string().max(200).optional(), fill: z.string().regex(/^#[0-9a-f]{6}$/i, 'A fill is such as #1a2b3c') }),
    )
    .max(60),
});
export type ColourKeyBody = z.output<typeof colourKeySchema>;

export const readColours = endpoint({
  method: 'GET',
  path: '/projects/:project/colours/:key',
  summary: 'What a kept colour key colours: each item by the place of its entry, and how many items have each; values without an entry are told',
  params: projectParams.extend({ key: idSchema }),
  reply: z.object({
    seq: z.number(),
    name: z.string(),
    /** What is coloured: "Priority"; nothing where that is not in the project. */
    of: z.string().nullable(),
    entries: z.array(z.object({ value: z.string(), label: z.string(), fill: z.string(), count: z.number() })),
    unkeyed: z.array(z.object({ value: z.string(), count: z.number() })),
    /** References of items by entry, in the order of entries. */
    items: z.array(z.array(z.string())),
  }),
});
