import { z } from 'zod';
import { briefSchema, idSchema, projectParams, timeSchema, wholeNumber, wholeNumberText } from './common.js';
import { endpoint } from './endpoint.js';
import { wordChangeSchema } from './items.js';

/** What became of an item or a link between two moments. */
export const becameOf = ['came', 'went', 'changed', 'moved'] as const;

const asked = z.object({
  /** The earlier moment, as the number of a change; the later is that which everything is read as of. */
  since: z.coerce.number().pipe(wholeNumber.min(1)),
  /** A kept lens: only items that are seen through it, and links with an end there. */
  lens: idSchema.optional(),
  entity: z.enum(['item', 'link']).optional(),
  did: z.enum(becameOf).optional(),
  person: z.string().max(200).optional(),
  /** Ids parted by commas: rows of these items only. Figures are of all. */
  among: z.string().max(10_000).optional(),
  /** What rows stand together by; within it as in the outline. */
  group: z.enum(['section', 'person', 'change', 'did']).default('section'),
});
export type ComparingAsked = z.output<typeof asked>;

export const comparedRow = z.object({
  entity: z.enum(['item', 'link']),
  did: z.enum(becameOf),
  item: briefSchema,
  /** The phrase and other end of a link. */
  phrase: z.string().nullable(),
  other: briefSchema.nullable(),
  /** What is different, part by part: in words, or what it was and is. */
  parts: z.array(z.object({ part: z.string(), words: z.array(wordChangeSchema) })),
  group: z.string(),
  /** The last change that had to do with it. */
  seq: z.number(),
  person: z.string(),
  at: timeSchema,
});
export type ComparedRow = z.infer<typeof comparedRow>;

const counts = z.object({ came: z.number(), went: z.number(), changed: z.number(), moved: z.number() });
const moment = z.object({ seq: z.number(), at: timeSchema });

export const compareMoments = endpoint({
  method: 'GET',
  path: '/projects/:project/compared',
  summary: 'What came, went, changed and moved between an earlier moment and the one that is looked at, items and links',
  params: projectParams,
  query: asked.extend({ offset: wholeNumberText.default(0), most: z.coerce.number().int().min(0).max(500).default(100) }),
  reply: z.object({
    from: moment,
    to: moment,
    items: counts,
    links: counts,
    /** Who had the last hand in how many of them. */
    persons: z.array(z.object({ person: z.string(), count: z.number() })),
    total: z.number(),
    groups: z.array(z.object({ label: z.string(), count: z.number() })),
    rows: z.array(comparedRow),
  }),
});

export const saveComparison = endpoint({
  method: 'POST',
  path: '/projects/:project/compared/:format',
  summary: 'The same as a document with marks in the text, as a workbook, or as separated values',
  params: projectParams.extend({ format: z.enum(['docx', 'xlsx', 'csv']) }),
  body: asked.extend({ since: wholeNumber.min(1) }),
  produces: 'application/octet-stream',
  reply: z.string(),
});
