import { drawingSorts } from '@coomb/core';
import { z } from 'zod';
import {
  MOST_SOUGHT,
  batchReply,
  briefSchema,
  coverageStateSchema,
  idSchema,
  lifeSchema,
  outcomeSchema,
  placeSchema,
  projectParams,
  stateSchema,
  timeSchema,
  wholeNumber,
  wholeNumberText,
} from './common.js';
import { endpoint } from './endpoint.js';
import { usageQuery } from './usages.js';
import { waitingEndSchema } from './waiting-ends.js';
import { fieldsSchema } from './scheme.js';

/**
 * The outline of a whole project in columns, in reading order, collection by collection. Row i of every column is one item.
 * `parent` is the row of the parent, or -1; `node` its number in links and traces.
 */
/** Columns of rows; in differences `parent` is a node instead of a row. */
const outlineColumns = {
  id: z.array(z.string()),
  node: z.array(z.number()),
  reference: z.array(z.string()),
  title: z.array(z.string()),
  /** Numbers of the clauses that items came from, where recipes put them into a field; an empty list where no recipe did. */
  clause: z.array(z.string()),
  /** Index into `kinds`. */
  kind: z.array(z.number()),
  /** Index into `collections`. */
  collection: z.array(z.number()),
  parent: z.array(z.number()),
  /** 1 for headings. */
  heading: z.array(z.number()),
  /** Index into the verification states. */
  state: z.array(z.number()),
  up: z.array(z.number()),
  down: z.array(z.number()),
  suspect: z.array(z.number()),
  /** How many coverage rules the item should meet and does not. */
  gaps: z.array(z.number()),
};

export const outlineReply = z.object({
  seq: z.number(),
  life: lifeSchema,
  /** The day that states hold on. */
  day: z.string(),
  /** Keys of kinds, and ids of collections, that the indexes below count. */
  kinds: z.array(z.string()),
  collections: z.array(z.string()),
  ...outlineColumns,
});
export type OutlineReply = z.infer<typeof outlineReply>;

export const getOutline = endpoint({
  method: 'GET',
  path: '/projects/:project/outline',
  summary: 'Every item in reading order, in columns',
  params: projectParams,
  reply: outlineReply,
});

/** What changed in the outline since the one that a page shows. */
export const outlineSince = z.object({
  seq: z.number(),
  life: lifeSchema,
  day: z.string(),
  /** True where the whole outline must be asked for. */
  whole: z.boolean(),
  difference: z
    .object({
      order: z.object({ at: z.number(), remove: z.number(), insert: z.array(z.number()) }).nullable(),
      rows: z.object(outlineColumns),
    })
    .nullable(),
});
export type OutlineSince = z.infer<typeof outlineSince>;

export const getOutlineSince = endpoint({
  method: 'GET',
  path: '/projects/:project/outline/since',
  summary: 'What changed in the outline since the one of a change, a day and a life',
  params: projectParams,
  query: z.object({ seq: wholeNumberText, day: z.string().max(10), life: z.string().max(80) }),
  reply: outlineSince,
});

export const itemSchema = z.object({
  id: idSchema,
  node: z.number(),
  collection: idSchema,
  kind: z.string(),
  reference: z.string(),
  title: z.string(),
  html: z.string(),
  fields: fieldsSchema,
  heading: z.boolean(),
  parent: idSchema.nullable(),
  revision: z.number(),
  withdrawn: z.boolean(),
  state: stateSchema,
});
export type Item = z.infer<typeof itemSchema>;

export const readCollection = endpoint({
  method: 'GET',
  path: '/projects/:project/collections/:collection/reading',
  summary: 'Items of a collection with their text, in reading order, page by page',
  params: projectParams.extend({ collection: idSchema }),
  query: z.object({ offset: wholeNumberText.default(0), limit: z.coerce.number().int().min(1).max(500).default(100) }),
  reply: z.object({ total: z.number(), items: z.array(itemSchema) }),
});

const itemParams = projectParams.extend({ item: z.string().max(200) });

export const trailLinkSchema = z.object({
  id: idSchema,
  linkKind: z.string(),
  /** How the link reads from the item asked about. */
  phrase: z.string(),
  end: z.enum(['from', 'to']),
  suspect: z.boolean(),
  origin: z.string(),
  revision: z.number(),
  /** The usage of this item, and of the other, in which the link holds only: "Larkbeck weir › Gate 1 › Drive". */
  usage: z.string().nullable(),
  otherUsage: z.string().nullable(),
  /** Ids of the items on the path of this item's usage. */
  usagePath: z.array(idSchema).nullable(),
  /** What the link's own fields say. */
  fields: fieldsSchema,
  other: briefSchema,
});
export type TrailLink = z.infer<typeof trailLinkSchema>;

export const evidenceSchema = z.object({
  test: briefSchema,
  outcome: outcomeSchema.nullable(),
  at: timeSchema.nullable(),
  run: z.string().nullable(),
  message: z.string(),
  stale: z.boolean(),
});

export const waiverSchema = z.object({
  id: idSchema,
  item: idSchema,
  rule: z.string(),
  person: z.string(),
  reason: z.string(),
  until: z.iso.date().nullable(),
  active: z.boolean(),
});

export const getItem = endpoint({
  method: 'GET',
  path: '/projects/:project/items/:item',
  summary: 'One item by id or reference, with its trail, coverage and evidence',
  params: itemParams,
  /** A usage of it: coverage is told as it stands there. */
  query: z.object({ use: usageQuery.optional() }),
  reply: itemSchema.extend({
    /** In how many ways it is used, as far as they are counted. */
    uses: z.number(),
    createdAt: timeSchema,
    changedAt: timeSchema,
    changedBy: z.string(),
    origin: z.string(),
    place: placeSchema.nullable(),
    source: z.object({ id: idSchema, name: z.string() }).nullable(),
    path: z.array(briefSchema),
    upstream: z.array(trailLinkSchema),
    downstream: z.array(trailLinkSchema),
    /** Links whose other end lies in a file that has not come yet. */
    waiting: z.array(waitingEndSchema),
    coverage: z.array(z.object({ rule: z.string(), label: z.string(), state: coverageStateSchema })),
    evidence: z.array(evidenceSchema),
    results: z.array(z.object({ outcome: outcomeSchema, at: timeSchema, run: z.string(), message: z.string(), duration: z.number().nullable() })),
    waivers: z.array(waiverSchema),
    /** What its source says of its inside that is no item itself. */
    details: z.array(z.object({ sort: z.string(), text: z.string(), element: z.string() })),
    /** Drawings that show it, each with the shapes that do. */
    drawnIn: z.array(
      z.object({
        drawing: idSchema,
        name: z.string(),
        item: idSchema.nullable(),
        sort: z.enum(drawingSorts),
        shapes: z.array(z.number()),
        shapeIds: z.array(z.string()),
      }),
    ),
  }),
});
export type ItemSheet = z.infer<(typeof getItem)['reply']>;

const conflictValue = z.union([z.string(), z.number(), z.boolean(), z.array(z.string()), z.null()]);

export const createItem = endpoint({
  method: 'POST',
  path: '/projects/:project/items',
  summary: 'Add an item after another, or as the last child of a parent',
  params: projectParams,
  body: z.object({
    /** Unsaid where an item is made in passing: it lands where its kind is at home. */
    collection: idSchema.optional(),
    kind: z.string().optional(),
    title: z.string().trim().min(1).max(500),
    html: z.string().max(1_000_000).default(''),
    fields: fieldsSchema.default({}),
    heading: z.boolean().default(false),
    parent: idSchema.nullable().default(null),
    after: idSchema.nullable().default(null),
  }),
  reply: itemSchema,
});

export const editItem = endpoint({
  method: 'PATCH',
  path: '/projects/:project/items/:item',
  summary:
    'Change title, text, fields or kind. `revision` is the one that the change is based on: what others changed since goes together with it, and what both changed is refused as a conflict with all three values, until `settled` says which to keep',
  params: itemParams,
  body: z.object({
    revision: wholeNumber,
    /** Of the conflicts at a revision: whose value holds, by `title`, `text`, `kind` or `field:<id>`. */
    settled: z.object({ revision: wholeNumber, fields: z.record(z.string().max(120), z.enum(['mine', 'theirs'])) }).optional(),
    title: z.string().trim().min(1).max(500).optional(),
    html: z.string().max(1_000_000).optional(),
    fields: fieldsSchema.optional(),
    kind: z.string().optional(),
  }),
  reply: itemSchema,
});

/** What a refusal with the code `changed-meanwhile` holds of an item that two people changed. */
export const editConflictSchema = z.object({
  revision: z.number(),
  by: z.string(),
  conflicts: z.array(z.object({ field: z.string(), label: z.string(), base: conflictValue, mine: conflictValue, theirs: conflictValue })),
});
export type EditConflicts = z.infer<typeof editConflictSchema>;

export const moveItem = endpoint({
  method: 'POST',
  path: '/projects/:project/items/:item/move',
  summary: 'Move an item below a parent, after a sibling or to the front',
  params: itemParams,
  body: z.object({ parent: idSchema.nullable(), after: idSchema.nullable() }),
  reply: batchReply,
});

export const splitItem = endpoint({
  method: 'POST',
  path: '/projects/:project/items/:item/split',
  summary: 'Make two items of one: the second stands after it, with the same fields and a suspect copy of every link',
  params: itemParams,
  body: z.object({
    revision: wholeNumber,
    title: z.string().trim().max(500).optional(),
    html: z.string().max(1_000_000),
    rest: z.object({ title: z.string().trim().max(500).optional(), html: z.string().max(1_000_000) }),
  }),
  /** The new item, and how many links were copied. */
  reply: z.object({ seq: z.number(), item: itemSchema, links: z.number() }),
});

export const joinItems = endpoint({
  method: 'POST',
  path: '/projects/:project/items/:item/join',
  summary: 'Take another item into this one: its text, links and children; it is withdrawn, and its history is read with this one’s',
  params: itemParams,
  body: z.object({ revision: wholeNumber, other: z.string().max(200), otherRevision: wholeNumber }),
  /** How many links came along, how many stood already, how many children came, and which values of the other gave way. */
  reply: z.object({
    seq: z.number(),
    item: itemSchema,
    links: z.number(),
    already: z.number(),
    children: z.number(),
    fields: z.array(z.object({ label: z.string(), value: z.string() })),
  }),
});

export const setKinds = endpoint({
  method: 'POST',
  path: '/projects/:project/items/kind',
  summary: 'Make items of another kind; values of fields that it lacks stay, hidden, and links that it does not allow become findings',
  params: projectParams,
  body: z.object({ items: z.array(idSchema).min(1).max(10_000), kind: z.string().max(120) }),
  reply: z.object({ seq: z.number(), changed: z.number(), disallowed: z.number() }),
});

export const changeItems = endpoint({
  method: 'POST',
  path: '/projects/:project/items/change',
  summary: 'Set a field of many items, or move them below a section of their collection, as one change. With `dryRun` nothing is stored',
  params: projectParams,
  body: z.object({
    items: z.array(idSchema).min(1).max(5000),
    change: z.discriminatedUnion('sort', [
      /** Null clears it. */
      z.object({ sort: z.literal('field'), field: z.string().max(120), value: fieldsSchema.valueType }),
      /** Behind what stands there; null: at the top of their collection. */
      z.object({ sort: z.literal('move'), below: idSchema.nullable() }),
    ]),
    dryRun: z.boolean().default(false),
    /** Leave out what cannot be changed, instead of changing nothing. */
    skipRefused: z.boolean().default(false),
  }),
  reply: batchReply.extend({ changed: z.number(), refused: z.array(z.object({ item: idSchema, says: z.string() })) }),
});

export const withdrawItems = endpoint({
  method: 'POST',
  path: '/projects/:project/items/withdraw',
  summary: 'Withdraw items and all below them; history, links and references survive',
  params: projectParams,
  body: z.object({ items: z.array(idSchema).min(1).max(10_000) }),
  reply: batchReply,
});

export const restoreItems = endpoint({
  method: 'POST',
  path: '/projects/:project/items/restore',
  summary: 'Bring withdrawn items back',
  params: projectParams,
  body: z.object({ items: z.array(idSchema).min(1).max(10_000) }),
  reply: batchReply,
});

export const wordChangeSchema = z.object({ type: z.enum(['same', 'added', 'removed']), text: z.string() });

export const getHistory = endpoint({
  method: 'GET',
  path: '/projects/:project/items/:item/history',
  summary: 'Every change of an item, newest first, word by word',
  params: itemParams,
  reply: z.array(
    z.object({
      seq: z.number(),
      at: timeSchema,
      person: z.string(),
      action: z.string(),
      /** Reference of another item that the change was made to, before this one was split from it or it was joined into this one. */
      of: z.string().nullable(),
      revision: z.number(),
      changes: z.array(z.object({ field: z.string(), words: z.array(wordChangeSchema) })),
    }),
  ),
});

export const getTrace = endpoint({
  method: 'GET',
  path: '/projects/:project/items/:item/trace',
  summary: 'Everything upstream and downstream of an item, as node numbers with their distance',
  params: itemParams,
  reply: z.object({ life: lifeSchema, up: z.array(z.tuple([z.number(), z.number()])), down: z.array(z.tuple([z.number(), z.number()])) }),
});

/** Stretches of a text, from a character on and up to another. */
const marksSchema = z.array(z.tuple([z.number(), z.number()]));
const foundSchema = briefSchema.extend({
  referenceMarks: marksSchema,
  titleMarks: marksSchema,
  /** Where else the words stand, when reference and title do not hold them all; `where` is a field's label, or empty for the text. */
  excerpt: z.object({ where: z.string(), text: z.string(), marks: marksSchema }).nullable(),
});
export type Found = z.infer<typeof foundSchema>;

export const findItems = endpoint({
  method: 'GET',
  path: '/projects/:project/find',
  summary: 'Items by words of their references, titles, texts, fields and sources, best first',
  params: projectParams,
  query: z.object({
    words: z.string().max(MOST_SOUGHT),
    most: z.coerce.number().int().min(1).max(1000).default(20),
    /** Only items that are seen through it. */
    lens: idSchema.optional(),
  }),
  reply: z.array(foundSchema),
});
