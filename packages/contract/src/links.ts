import { z } from 'zod';
import { batchReply, briefSchema, idSchema, lifeSchema, projectParams, wholeNumber } from './common.js';
import { endpoint } from './endpoint.js';
import { wordChangeSchema } from './items.js';
import { fieldsSchema } from './scheme.js';
import { usagePath } from './usages.js';

/** Links in columns; `from` and `to` are node numbers, `kind` an index into the link kinds of the scheme. */
export const linkColumns = z.object({
  seq: z.number(),
  life: lifeSchema,
  id: z.array(z.string()),
  from: z.array(z.number()),
  to: z.array(z.number()),
  kind: z.array(z.number()),
  suspect: z.array(z.number()),
  /** How the usages read that links hold in, and of each link which one at either end: its place in the list, or -1 where it holds in all. Empty where none does. */
  usages: z.array(z.string()),
  /** Ids of the items on the path of each of the usages. */
  usagePaths: z.array(z.array(idSchema)),
  fromUsage: z.array(z.number()),
  toUsage: z.array(z.number()),
});
export type LinkColumnsReply = z.infer<typeof linkColumns>;

export const listLinks = endpoint({
  method: 'GET',
  path: '/projects/:project/links',
  summary: 'Links that join items of two collections or kinds, either way; all links when nothing is asked',
  params: projectParams,
  query: z.object({ left: z.string().max(2000).optional(), right: z.string().max(2000).optional() }),
  reply: linkColumns,
});

export const createLinks = endpoint({
  method: 'POST',
  path: '/projects/:project/links',
  summary: 'Make links; each must be allowed for the kinds of its ends',
  params: projectParams,
  body: z.object({
    links: z
      .array(z.object({ linkKind: z.string(), from: idSchema, to: idSchema, fromUsage: usagePath.optional(), toUsage: usagePath.optional() }))
      .min(1)
      .max(5000),
    origin: z.enum(['made', 'suggested']).default('made'),
    /** Leave out what may not be linked, instead of linking nothing. */
    skipRefused: z.boolean().default(false),
  }),
  reply: batchReply,
});

export const planLinks = endpoint({
  method: 'POST',
  path: '/projects/:project/links/plan',
  summary: 'What linking each of some items with each of others would make, kind by kind, and what would be refused, why; nothing is stored',
  params: projectParams,
  body: z.object({ left: z.array(idSchema).min(1).max(500), right: z.array(idSchema).min(1).max(500) }),
  reply: z.array(
    z.object({
      linkKind: z.string(),
      /** The items of the left stand at its `to` end. */
      reversed: z.boolean(),
      makes: z.number(),
      refused: z.number(),
      /** The first of what is refused, in words. */
      says: z.array(z.string()),
    }),
  ),
});

/** What becomes of one link that was pasted. */
export const pastedOutcomes = ['makes', 'stands', 'asks', 'waits', 'unknown', 'refused'] as const;

export const pasteLinks = endpoint({
  method: 'POST',
  path: '/projects/:project/links/pasted',
  summary:
    'Make links from cells of a spreadsheet: two columns of references, or a matrix with marks. With `dryRun` it says what becomes of every row and stores nothing',
  params: projectParams,
  body: z.object({
    text: z.string().min(1).max(2_000_000),
    /** Where the cells do not say it: the kind, and whether the left stands at its `to` end; else the only one that each pair allows. */
    linkKind: z.string().max(100).optional(),
    reversed: z.boolean().default(false),
    /** Ends that are not there yet wait for an item of that reference. */
    wait: z.boolean().default(false),
    dryRun: z.boolean().default(false),
  }),
  reply: batchReply.extend({
    shape: z.enum(['pairs', 'matrix']),
    counts: z.record(z.enum(pastedOutcomes), z.number()),
    rows: z.array(
      z.object({
        line: z.number(),
        left: z.string(),
        right: z.string(),
        outcome: z.enum(pastedOutcomes),
        /** How the link reads, or why there is none. */
        says: z.string(),
      }),
    ),
    /** Lines that ask for no link. */
    passed: z.array(z.object({ line: z.number(), says: z.string() })),
  }),
});

export const refuseSuggestions = endpoint({
  method: 'POST',
  path: '/projects/:project/suggestions/refuse',
  summary: 'Say that items are not to be linked: none of the pairs is suggested until one of the two says something else',
  params: projectParams,
  body: z.object({
    pairs: z
      .array(z.object({ item: idSchema, other: idSchema }))
      .min(1)
      .max(1000),
  }),
  reply: batchReply,
});

export const editLink = endpoint({
  method: 'PATCH',
  path: '/projects/:project/links/:link',
  summary: 'Change fields of a link; `revision` is the one that was seen',
  params: projectParams.extend({ link: idSchema }),
  body: z.object({ revision: wholeNumber, fields: fieldsSchema }),
  reply: batchReply,
});

export const removeLinks = endpoint({
  method: 'POST',
  path: '/projects/:project/links/remove',
  summary: 'Take links away; undo brings them back',
  params: projectParams,
  body: z.object({ links: z.array(idSchema).min(1).max(5000) }),
  reply: batchReply,
});

export const confirmLinks = endpoint({
  method: 'POST',
  path: '/projects/:project/links/confirm',
  summary: 'Confirm links against what their ends say now; a reason is kept in the change',
  params: projectParams,
  body: z.object({ links: z.array(idSchema).min(1).max(5000), reason: z.string().trim().max(1000).default('') }),
  reply: batchReply,
});

export const getLinkDifference = endpoint({
  method: 'GET',
  path: '/projects/:project/links/:link/difference',
  summary: 'What changed at the ends of a link since it was last confirmed, word by word',
  params: projectParams.extend({ link: idSchema }),
  reply: z.object({
    linkKind: z.string(),
    confirmedBy: z.string(),
    ends: z.array(z.object({ item: briefSchema, words: z.array(wordChangeSchema), changedBy: z.string().nullable() })),
  }),
});

const suggestionReason = z.discriminatedUnion('sort', [
  z.object({ sort: z.literal('words'), words: z.array(z.string()) }),
  /** One says the title of the other. */
  z.object({ sort: z.literal('title'), words: z.array(z.string()) }),
  /** An item like this one is linked with it. */
  z.object({ sort: z.literal('alike'), like: briefSchema }),
  /** What stands beside one of them is linked with the other. */
  z.object({ sort: z.literal('beside'), count: z.number().int() }),
  /** The link stands the other way round. */
  z.object({ sort: z.literal('reverse') }),
  /** Both are linked with the same others. */
  z.object({ sort: z.literal('common'), count: z.number().int() }),
  /** It is linked often. */
  z.object({ sort: z.literal('often'), count: z.number().int() }),
]);
export type SuggestionReason = z.output<typeof suggestionReason>;

export const suggestLinks = endpoint({
  method: 'GET',
  path: '/projects/:project/suggestions/:item',
  summary: 'Likely other ends for an item in one collection, ranked by words, places and the links that are there, each with its reasons',
  params: projectParams.extend({ item: idSchema }),
  query: z.object({ collection: idSchema, most: z.coerce.number().int().min(1).max(50).default(8) }),
  reply: z.array(
    z.object({
      item: briefSchema,
      score: z.number(),
      /** Of those told so, how many were right by the links that are there, from 0 to 1; null where there are too few to tell. */
      likelihood: z.number().nullable(),
      /** The weightiest first. */
      reasons: z.array(suggestionReason),
      /** Words to be lit, as the item writes them. */
      shared: z.array(z.string()),
    }),
  ),
});
