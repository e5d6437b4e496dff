import { z } from 'zod';
import { MOST_SOUGHT, batchReply, briefSchema, idSchema, projectParams, timeSchema, wholeNumberText } from './common.js';
import { endpoint } from './endpoint.js';
import { fieldsSchema } from './scheme.js';
import { usagePath } from './usages.js';

export const linkSorts = ['from', 'kind', 'to', 'person', 'at'] as const;
export const linkGroups = ['none', 'kind', 'layers', 'collections', 'origin', 'person'] as const;
export const linkStates = ['all', 'suspect', 'sound', 'withdrawn', 'inUse'] as const;

const several = z
  .string()
  .max(2000)
  .transform((text) => text.split(',').filter(Boolean))
  .default([]);

/** What a list of links shows: every part of it narrows the list; several values of one part widen it. */
export const linkFilter = z.object({
  kind: several,
  /** Collections that one end stands in, and the other. */
  left: several,
  right: several,
  /** Layers as "from>to". */
  layers: z.string().max(200).default(''),
  state: z.enum(linkStates).default('all'),
  origin: several,
  person: z.string().max(80).default(''),
  words: z.string().max(MOST_SOUGHT).default(''),
  /** The use that the link holds in at one of its ends, as it is said. */
  use: z.string().max(1000).default(''),
  /** A field of items, and what an end says in it; without a value it narrows nothing. */
  field: z.string().max(100).default(''),
  value: z.string().max(1000).default(''),
  /** A kept lens: links of which an end is seen through it. */
  lens: z.union([idSchema, z.literal('')]).default(''),
  /** Confirmed on this day or later, or earlier than that. */
  after: z.union([z.iso.date(), z.literal('')]).default(''),
  before: z.union([z.iso.date(), z.literal('')]).default(''),
});
/** The filter, and the order that a list is in. */
const orderedFilter = linkFilter.extend({
  sort: z.enum(linkSorts).default('from'),
  descending: z.enum(['yes', 'no']).default('no'),
  group: z.enum(linkGroups).default('none'),
});

export type LinkFilter = z.output<typeof linkFilter>;

const listedLink = z.object({
  id: idSchema,
  revision: z.number(),
  kind: z.string(),
  from: briefSchema,
  to: briefSchema,
  suspect: z.boolean(),
  origin: z.string(),
  person: z.string(),
  at: timeSchema,
  fromUse: z.string().nullable(),
  toUse: z.string().nullable(),
  fields: fieldsSchema,
});
export type ListedLink = z.infer<typeof listedLink>;

const countsSchema = z.array(z.object({ id: z.string(), count: z.number() }));

export const queryLinks = endpoint({
  method: 'GET',
  path: '/projects/:project/link-list',
  summary: 'Every link of the project, filtered, grouped and sorted: a window of the list, with counts of what could be chosen',
  params: projectParams,
  query: orderedFilter.extend({
    offset: wholeNumberText.default(0),
    limit: z.coerce.number().int().min(0).max(500).default(100),
  }),
  reply: z.object({
    seq: z.number(),
    all: z.number(),
    total: z.number(),
    /** Of a grouped list: groups in order, with how many rows each has. */
    groups: countsSchema,
    counts: z.object({
      kind: countsSchema,
      origin: countsSchema,
      person: countsSchema,
      layers: countsSchema,
      state: countsSchema,
      use: countsSchema,
      value: countsSchema,
    }),
    offset: z.number(),
    rows: z.array(listedLink),
  }),
});

export const findLinkIds = endpoint({
  method: 'GET',
  path: '/projects/:project/link-list/ids',
  summary: 'Ids of all links that a filter leaves, in the order of the list, to do something with many of them',
  params: projectParams,
  query: orderedFilter,
  reply: z.array(idSchema),
});

export const saveLinkList = endpoint({
  method: 'GET',
  path: '/projects/:project/link-list/save/:format',
  summary: 'The links that a filter leaves, in their order, as a workbook or separated values',
  params: projectParams.extend({ format: z.enum(['xlsx', 'csv']) }),
  query: orderedFilter,
  produces: 'application/octet-stream',
  reply: z.string(),
});

export const changeLinks = endpoint({
  method: 'POST',
  path: '/projects/:project/links/change',
  summary: 'Give links another kind, a value of a field, or hang one of their ends on another item; a link keeps its identity. With `dryRun` nothing is stored',
  params: projectParams,
  body: z.object({
    links: z.array(idSchema).min(1).max(5000),
    change: z.discriminatedUnion('sort', [
      z.object({ sort: z.literal('kind'), linkKind: z.string().max(100) }),
      z.object({ sort: z.literal('fields'), fields: fieldsSchema }),
      z.object({ sort: z.literal('end'), end: z.enum(['from', 'to']), item: z.string().trim().min(1).max(200), usage: usagePath.optional() }),
    ]),
    dryRun: z.boolean().default(false),
    /** Leave out what cannot be changed, instead of changing nothing. */
    skipRefused: z.boolean().default(false),
  }),
  reply: batchReply.extend({ changed: z.number(), refused: z.array(z.object({ link: idSchema, says: z.string() })) }),
});
