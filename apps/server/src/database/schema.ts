import type { ErrandSort, RecipeBody } from '@coomb/contract';
import type { Binding, DrawnBody, FieldValue, ItemDetail, LastContact, Issue, MergeChoice, SchemePart, SchemeSort, SourcePlace } from '@coomb/core';
import { sql } from 'drizzle-orm';
import {
  boolean,
  customType,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  smallint,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';

/** Bytes go in as base64, which the driver passes on ten times quicker than it writes bytes out itself. */
const bytea = customType<{ data: Uint8Array; driverData: Uint8Array }>({
  dataType: () => 'bytea',
  toDriver: (bytes) => sql`decode(${Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length).toString('base64')}, 'base64')`,
});
const time = (name: string) => timestamp(name, { withTimezone: true, mode: 'string' });

/** Columns every undoable row has: who it belongs to, how often it changed, whether it is withdrawn. */
const tracked = () => ({
  id: uuid('id').primaryKey(),
  projectId: uuid('project_id').notNull(),
  revision: integer('revision').notNull(),
  withdrawn: boolean('withdrawn').notNull(),
});

/** Who works here. Of no project: what they did in each points at them. */
export const persons = pgTable('person', {
  id: uuid('id').primaryKey(),
  revision: integer('revision').notNull(),
  name: text('name').notNull(),
  /** Names that they went by before. */
  names: jsonb('names').$type<string[]>().notNull(),
  initials: text('initials').notNull(),
  colour: text('colour').notNull(),
  createdAt: time('created_at').notNull(),
});

export const projects = pgTable('project', {
  id: uuid('id').primaryKey(),
  revision: integer('revision').notNull().default(1),
  withdrawn: boolean('withdrawn').notNull().default(false),
  name: text('name').notNull(),
  /** Set aside: it can be read, not changed. */
  archived: boolean('archived').notNull().default(false),
  /** Number of the last batch; everything that must know "since when" counts in it. */
  seq: integer('seq').notNull(),
  createdAt: time('created_at').notNull(),
});

export const collections = pgTable('collection', {
  ...tracked(),
  name: text('name').notNull(),
  holds: text('holds').$type<'specification' | 'model' | 'tests'>().notNull(),
  prefix: text('prefix').notNull(),
  /** Kind of new items. */
  kind: text('kind').notNull(),
  rank: doublePrecision('rank').notNull(),
  /** The set that it belongs to; nothing for those of the whole project. */
  setId: uuid('set_id'),
});

/** Collections that belong together: one system of several, one process of many. */
export const sets = pgTable('collection_set', {
  ...tracked(),
  name: text('name').notNull(),
  rank: doublePrecision('rank').notNull(),
});

/** What the scheme of a project is made of: its layers, kinds, fields, link kinds and rules, each a row. Withdrawn ones are retired. */
export const schemeParts = pgTable(
  'scheme_part',
  {
    ...tracked(),
    sort: text('sort').$type<SchemeSort>().notNull(),
    /** What items, links, recipes and other parts name it by; never changed, never used again. */
    key: text('key').notNull(),
    rank: doublePrecision('rank').notNull(),
    /** Place among its like in the order in which they were made. */
    number: integer('number').notNull(),
    body: jsonb('body').$type<SchemePart['body']>().notNull(),
  },
  (table) => [uniqueIndex('scheme_part_key').on(table.projectId, table.sort, table.key)],
);

export const items = pgTable(
  'item',
  {
    ...tracked(),
    collectionId: uuid('collection_id').notNull(),
    kind: text('kind').notNull(),
    reference: text('reference').notNull(),
    title: text('title').notNull(),
    html: text('html').notNull(),
    fields: jsonb('fields').$type<Record<string, FieldValue>>().notNull(),
    heading: boolean('heading').notNull(),
    parentId: uuid('parent_id'),
    rank: doublePrecision('rank').notNull(),
    /** Its number in the trace graph of the project: given once, never used again. */
    node: integer('node').notNull(),
    /** Number of the batch in which the present meaning (title, text, meaning-bearing fields) came to be. */
    meaningSeq: integer('meaning_seq').notNull(),
    origin: text('origin').notNull(),
    /** What its source says of its inside that is no item itself. */
    details: jsonb('details').$type<ItemDetail[]>().notNull().default([]),
    /** Partners that know the item: the first is where it came from. */
    bindings: jsonb('bindings').$type<Binding[]>().notNull(),
    /** What was last exchanged with each of them, by partner. */
    exchanged: jsonb('exchanged').$type<Record<string, LastContact>>().notNull(),
    createdAt: time('created_at').notNull(),
    changedAt: time('changed_at').notNull(),
    changedBy: text('changed_by').notNull(),
  },
  (table) => [
    uniqueIndex('item_reference').on(table.projectId, table.reference),
    uniqueIndex('item_node').on(table.projectId, table.node),
    index('item_collection').on(table.collectionId),
  ],
);

export const links = pgTable(
  'link',
  {
    ...tracked(),
    kind: text('kind').notNull(),
    fromId: uuid('from_id').notNull(),
    toId: uuid('to_id').notNull(),
    /** Usages, where the link holds in one usage of an end only. */
    fromUsage: uuid('from_usage'),
    toUsage: uuid('to_usage'),
    fields: jsonb('fields').$type<Record<string, FieldValue>>().notNull(),
    origin: text('origin').notNull(),
    /** Meaning of each end at which the link was last confirmed. */
    fromSeq: integer('from_seq').notNull(),
    toSeq: integer('to_seq').notNull(),
    confirmedBy: text('confirmed_by').notNull(),
    confirmedAt: time('confirmed_at').notNull(),
  },
  (table) => [index('link_project').on(table.projectId), index('link_from').on(table.fromId), index('link_to').on(table.toId)],
);

/** A use of an item: the path of parts that leads down to it, stored once. */
export const usages = pgTable(
  'usage',
  {
    ...tracked(),
    itemId: uuid('item_id').notNull(),
    /** Ids of items from a root down to the item itself. */
    path: jsonb('path').$type<string[]>().notNull(),
    /** What the fields of the item say in this use and in no other. */
    fields: jsonb('fields').$type<Record<string, FieldValue>>().notNull().default({}),
    /** Number of the batch in which meaning-bearing fields came to say here what they say; 0 where none ever said anything. */
    meaningSeq: integer('meaning_seq').notNull().default(0),
  },
  (table) => [index('usage_item').on(table.itemId)],
);

/** An end of an item's link that lies in a file which may come later. */
export const waitingEnds = pgTable(
  'waiting_end',
  {
    ...tracked(),
    itemId: uuid('item_id').notNull(),
    /** Kinds of link that it may be, the likeliest first. */
    linkKinds: jsonb('link_kinds').$type<string[]>().notNull(),
    /** The item stands at the `to` end. */
    reversed: boolean('reversed').notNull(),
    /** The other end as the file names it: an address, # and an identifier. */
    target: text('target').notNull(),
    /** Line of versions of the file that says so. */
    partner: uuid('partner').notNull(),
  },
  (table) => [index('waiting_end_project').on(table.projectId)],
);

export const sources = pgTable(
  'source',
  {
    ...tracked(),
    name: text('name').notNull(),
    format: text('format').notNull(),
    mediaType: text('media_type').notNull(),
    size: integer('size').notNull(),
    importedAt: time('imported_at').notNull(),
    importedBy: text('imported_by').notNull(),
    recipe: jsonb('recipe').$type<unknown>(),
    issues: jsonb('issues').$type<Issue[]>().notNull(),
    /** First version of the same file; its own id when it is the first. Items point at this. */
    lineageId: uuid('lineage_id'),
    /** Where its items went. */
    collectionId: uuid('collection_id'),
    /** What was chosen when it was merged with what stood here. */
    choices: jsonb('choices').$type<Record<string, MergeChoice>>(),
    /** Kept or ready recipe that it was read by. */
    recipeId: text('recipe_id'),
  },
  (table) => [index('source_project').on(table.projectId)],
);

/** Where each item stands in each version of its source. */
export const places = pgTable(
  'place',
  {
    sourceId: uuid('source_id').notNull(),
    itemId: uuid('item_id').notNull(),
    place: jsonb('place').$type<SourcePlace>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.sourceId, table.itemId] }), index('place_item').on(table.itemId)],
);

/** Recipes kept in the project. */
export const recipes = pgTable('recipe', {
  ...tracked(),
  name: text('name').notNull(),
  /** Sort of file it reads: document, sheet or exchange. */
  reads: text('reads').$type<RecipeBody['reads']>().notNull(),
  body: jsonb('body').$type<RecipeBody>().notNull(),
  changedAt: time('changed_at').notNull(),
  changedBy: text('changed_by').notNull(),
});

/** A passage of a source that became an item, or a field of one. */
export const clippings = pgTable(
  'clipping',
  {
    ...tracked(),
    sourceId: uuid('source_id').notNull(),
    itemId: uuid('item_id').notNull(),
    /** `title`, `text`, or a field. */
    field: text('field').notNull(),
    /** Index of the block, and the characters of its text. */
    block: integer('block').notNull(),
    start: integer('start').notNull(),
    end: integer('end').notNull(),
    quote: text('quote').notNull(),
  },
  (table) => [index('clipping_source').on(table.sourceId), index('clipping_item').on(table.itemId)],
);

/** Original files, and pictures taken from them, kept beside what came of them. */
export const files = pgTable('file', {
  id: uuid('id').primaryKey(),
  projectId: uuid('project_id').notNull(),
  /** Nothing for pictures that people put into texts. */
  sourceId: uuid('source_id'),
  name: text('name').notNull(),
  mediaType: text('media_type').notNull(),
  /** All bytes, or none where the file lies in parts. */
  bytes: bytea('bytes').notNull(),
  /** How many parts a large file lies in. */
  parts: integer('parts').notNull().default(0),
  /** Of the bytes, computed by the database when they came in, so that damage is told. */
  sha256: text('sha256'),
});

/** Parts of large files: everybody waits while one is written or read. */
export const fileParts = pgTable(
  'file_part',
  { fileId: uuid('file_id').notNull(), number: integer('number').notNull(), bytes: bytea('bytes').notNull() },
  (table) => [primaryKey({ columns: [table.fileId, table.number] })],
);

export const drawings = pgTable(
  'drawing',
  {
    ...tracked(),
    collectionId: uuid('collection_id').notNull(),
    /** The item that it is: what links and lists see of it. Nothing for drawings that came in before drawings were items. */
    itemId: uuid('item_id'),
    name: text('name').notNull(),
    externalId: text('external_id').notNull(),
    body: jsonb('body').$type<DrawnBody>().notNull(),
  },
  // Where an item is drawn is asked for with every sheet.
  (table) => [
    index('drawing_collection').on(table.collectionId),
    index('drawing_item').on(table.itemId),
    index('drawing_shows').using('gin', sql`jsonb_path_query_array(${table.body}, '$.shapes[*].item')`),
  ],
);

export const runs = pgTable('run', {
  ...tracked(),
  name: text('name').notNull(),
  at: time('at').notNull(),
  seq: integer('seq').notNull(),
  sourceId: uuid('source_id'),
});

export const results = pgTable(
  'result',
  {
    runId: uuid('run_id').notNull(),
    ordinal: integer('ordinal').notNull(),
    testId: uuid('test_id'),
    suite: text('suite').notNull(),
    name: text('name').notNull(),
    outcome: text('outcome').$type<'passed' | 'failed' | 'broken' | 'skipped'>().notNull(),
    duration: doublePrecision('duration'),
    message: text('message').notNull(),
    reason: text('reason').$type<'property' | 'reference' | 'title'>(),
  },
  (table) => [primaryKey({ columns: [table.runId, table.ordinal] }), index('result_test').on(table.testId)],
);

export const waivers = pgTable('waiver', {
  ...tracked(),
  itemId: uuid('item_id').notNull(),
  rule: text('rule').notNull(),
  person: text('person').notNull(),
  reason: text('reason').notNull(),
  until: text('until'),
  /** Of a waiver of a finding: what the finding is known by; null for a gap of a coverage rule. */
  finding: text('finding'),
  /** Who agreed to it, where that is somebody else. */
  approver: text('approver'),
});

/** What somebody took on, or was handed: something to be done at an item, or at a link of it. */
export const errands = pgTable(
  'errand',
  {
    ...tracked(),
    itemId: uuid('item_id').notNull(),
    linkId: uuid('link_id'),
    sort: text('sort').$type<ErrandSort>().notNull(),
    /** What the finding that it is to mend is known by. */
    finding: text('finding'),
    note: text('note').notNull(),
    owner: text('owner').notNull(),
    giver: text('giver').notNull(),
    at: time('at').notNull(),
    done: boolean('done').notNull(),
  },
  (table) => [index('errand_project').on(table.projectId)],
);

/** That two items are not to be linked, whatever speaks for it: what both meant when somebody said so. */
export const refusals = pgTable(
  'refusal',
  {
    ...tracked(),
    itemId: uuid('item_id').notNull(),
    otherId: uuid('other_id').notNull(),
    itemSeq: integer('item_seq').notNull(),
    otherSeq: integer('other_seq').notNull(),
    person: text('person').notNull(),
    at: time('at').notNull(),
  },
  (table) => [index('refusal_project').on(table.projectId)],
);

/** How a view was set, kept under a name. */
export const savedViews = pgTable(
  'saved_view',
  {
    ...tracked(),
    sort: text('sort').notNull(),
    name: text('name').notNull(),
    /** Form of what is kept. */
    version: smallint('version').notNull(),
    body: jsonb('body').$type<Record<string, unknown>>().notNull(),
    person: text('person').notNull(),
    at: time('at').notNull(),
  },
  (table) => [index('saved_view_project').on(table.projectId)],
);

/** A moment of the project that somebody gave a name. */
export const baselines = pgTable(
  'baseline',
  {
    ...tracked(),
    name: text('name').notNull(),
    note: text('note').notNull(),
    /** Number of the change after which things stood so. */
    seq: integer('seq').notNull(),
    person: text('person').notNull(),
    at: time('at').notNull(),
  },
  (table) => [index('baseline_project').on(table.projectId)],
);

export const batches = pgTable(
  'batch',
  {
    id: uuid('id').primaryKey(),
    projectId: uuid('project_id').notNull(),
    seq: integer('seq').notNull(),
    at: time('at').notNull(),
    person: text('person').notNull(),
    /** Whose hand did it, whatever name that hand goes by: undo takes back one's own actions. */
    hand: text('hand'),
    action: text('action').notNull(),
    kind: text('kind').$type<'do' | 'undo' | 'redo'>().notNull(),
    /** The batch that this one takes back or does again. */
    target: uuid('target'),
    /** Number of the batch that took this one back. */
    undoneSeq: integer('undone_seq'),
    size: integer('size').notNull(),
  },
  (table) => [uniqueIndex('batch_seq').on(table.projectId, table.seq)],
);

/**
 * What each change left of what it touched, in a form of its own: never updated, never deleted. What stood before is the newest entry before it.
 * Number 0 stands for what is older than the history.
 */
export const history = pgTable(
  'history',
  {
    projectId: uuid('project_id').notNull(),
    seq: integer('seq').notNull(),
    ordinal: integer('ordinal').notNull(),
    entity: text('entity').notNull(),
    entityId: uuid('entity_id').notNull(),
    /** Form that the value is in: what was written in an older one is brought to the present one when it is read. */
    version: smallint('version').notNull(),
    value: jsonb('value').$type<Record<string, unknown>>().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.projectId, table.seq, table.ordinal] }),
    index('history_entity').on(table.projectId, table.entity, table.entityId, table.seq.desc().nullsFirst(), table.ordinal.desc().nullsFirst()),
  ],
);

export const reports = pgTable('report', {
  id: uuid('id').primaryKey(),
  projectId: uuid('project_id').notNull(),
  revision: integer('revision').notNull().default(1),
  withdrawn: boolean('withdrawn').notNull().default(false),
  number: integer('number').notNull(),
  title: text('title').notNull(),
  at: time('at').notNull(),
  person: text('person').notNull(),
  seq: integer('seq').notNull(),
  body: jsonb('body').$type<unknown>().notNull(),
});
