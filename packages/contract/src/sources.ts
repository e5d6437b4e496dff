import { z } from 'zod';
import { batchReply, briefSchema, idSchema, issueSchema, placeSchema, projectParams, timeSchema, wholeNumber } from './common.js';
import { endpoint } from './endpoint.js';
import { blockSchema, sheetSchema } from './gather.js';
import { itemSchema } from './items.js';

const sourceParams = projectParams.extend({ source: idSchema });

export const clippingSchema = z.object({
  id: idSchema,
  block: z.number(),
  start: z.number(),
  end: z.number(),
  quote: z.string(),
  /** `title`, `text`, `link`, or a field. */
  field: z.string(),
  item: briefSchema,
});

/** A stored original as it reads, with the items that came from it at their places. */
export const sourceContent = z.discriminatedUnion('type', [
  z.object({ type: z.literal('document'), blocks: z.array(blockSchema) }),
  z.object({ type: z.literal('sheets'), sheets: z.array(sheetSchema) }),
  /** Elements of a model in the order of the file, in columns; `parent` is an index, or -1. Drawings stand behind the elements. */
  z.object({
    type: z.literal('model'),
    id: z.array(z.string()),
    name: z.array(z.string()),
    /** What each is, by its place in `sorts`: "«block» class". */
    sort: z.array(z.number()),
    sorts: z.array(z.string()),
    parent: z.array(z.number()),
    line: z.array(z.number()),
    /** File of several that each stands in, by its place in `files`, or -1. */
    file: z.array(z.number()),
    files: z.array(z.string()),
  }),
  /** Other files of elements are shown as the text they are. */
  z.object({ type: z.literal('text'), lines: z.array(z.string()) }),
]);
export const readSource = endpoint({
  method: 'GET',
  path: '/projects/:project/sources/:source/content',
  summary: 'A stored original as it reads, the items that came from it, and what was clipped from it',
  params: sourceParams,
  /** Models read as a tree of elements, or as the text that they are. */
  query: z.object({ as: z.enum(['tree', 'text']).default('tree') }),
  reply: z.object({
    id: idSchema,
    name: z.string(),
    label: z.string(),
    importedAt: timeSchema,
    importedBy: z.string(),
    /** Newest version of the same file, when this is not it. */
    newer: idSchema.nullable(),
    content: sourceContent,
    items: z.array(z.object({ item: briefSchema, place: placeSchema, line: z.number().nullable() })),
    clippings: z.array(clippingSchema),
    /** Clippings of an older version that could not be placed in this one. */
    lost: z.array(clippingSchema),
    issues: z.array(issueSchema),
  }),
});

export const clipPassage = endpoint({
  method: 'POST',
  path: '/projects/:project/sources/:source/clip',
  summary: 'Make an item, or a part of one, of a passage of a stored document; passage and item know each other afterwards',
  params: sourceParams,
  body: z.object({
    /** One for each paragraph or table that the passage takes part of, in reading order. */
    passages: z
      .array(z.object({ block: wholeNumber, start: wholeNumber, end: wholeNumber.min(1), quote: z.string().trim().min(1).max(20_000) }))
      .min(1)
      .max(200),
    /** The passage with its formatting; its plain words when unsaid. */
    html: z.string().max(200_000).optional(),
    /** A new item, a new item below the current one, a field of the current one, or links from it to the references in the passage. */
    as: z.enum(['item', 'child', 'field', 'link']),
    /** Unsaid: where the kind is at home. */
    collection: idSchema.optional(),
    /** The current item: new ones come after or below it. */
    item: idSchema.optional(),
    kind: z.string().max(100).optional(),
    /** `title`, `text`, or a field of the kind. */
    field: z.string().max(100).optional(),
    linkKind: z.string().max(100).optional(),
  }),
  reply: z.object({ seq: z.number(), item: itemSchema, links: z.number(), issues: z.array(issueSchema) }),
});

export const removeClipping = endpoint({
  method: 'POST',
  path: '/projects/:project/clippings/:clipping/remove',
  summary: 'Let a passage go: the item stays, the passage counts as not clipped',
  params: projectParams.extend({ clipping: idSchema }),
  reply: batchReply,
});

export const keepSource = endpoint({
  method: 'POST',
  path: '/projects/:project/tray/:tray/keep',
  summary: 'Store a handed-in document without importing items, to clip from',
  params: projectParams.extend({ tray: idSchema }),
  body: z.object({ again: idSchema.optional() }),
  reply: z.object({ source: idSchema, carried: z.number(), lost: z.number() }),
});
