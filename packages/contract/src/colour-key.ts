import { dashes, glyphNames } from '@coomb/core';
import { z } from 'zod';
import { idSchema, projectParams } from './common.js';
import { endpoint } from './endpoint.js';

const colour = z.string().regex(/^#[0-9a-f]{6}$/i, 'A colour is such as #1a2b3c');

/** How something is drawn by a colour key. */
export const coatSchema = z.object({
  fill: colour,
  line: colour.optional(),
  width: z.number().min(0.5).max(8).optional(),
  dash: z.enum(dashes).optional(),
  glyph: z.enum(glyphNames).optional(),
});

/** Colours for what items say in one of their values. */
export const colourKeySchema = z.object({
  about: z.enum(['items', 'links']).optional(),
  shown: z.object({ sort: z.string().min(1).max(200), of: z.string().min(1).max(200).optional() }),
  ranges: z.boolean().default(false),
  entries: z
    .array(
      z.object({
        value: z.string().max(500),
        label: z.string().max(200).optional(),
        ...coatSchema.shape,
      }),
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
    about: z.enum(['items', 'links']),
    entries: z.array(
      z.object({
        ...{ value: z.string(), label: z.string(), count: z.number() },
        ...coatSchema.shape,
      }),
    ),
    unkeyed: z.array(z.object({ value: z.string(), count: z.number() })),
    /** References of items by entry, in the order of entries. */
    items: z.array(z.array(z.string())),
    /** Links that have an entry, side by side: nodes of their ends, the number of their kind in the scheme, and the place of the entry. */
    links: z.object({ from: z.array(z.number()), to: z.array(z.number()), kind: z.array(z.number()), entry: z.array(z.number()) }),
  }),
});
