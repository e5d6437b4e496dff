import { gatherings, quantities, tallySorts, tests } from '@coomb/core';
import { z } from 'zod';
import { batchReply, briefSchema, idSchema, projectParams, wholeNumber } from './common.js';
import { endpoint } from './endpoint.js';

const name = z.string().min(1).max(200);

const wayStep = z.object({ linkKind: name, end: z.enum(['from', 'to']), kinds: z.array(name).max(50).optional() });
/** Longer ways lead everywhere. */
export const waySchema = z.array(wayStep).max(6);
const way = waySchema.default([]);
export const shownSchema = z.object({ sort: name, of: name.optional() });

export const columnSchema = z.object({
  id: z.string().min(1).max(60),
  way,
  shown: shownSchema,
  as: z.enum(gatherings).default('list'),
  label: z.string().max(120).optional(),
  width: z.number().int().min(20).max(2000).optional(),
  hidden: z.boolean().optional(),
  tally: z.object({ as: z.enum(tallySorts), of: z.string().max(500).optional() }).optional(),
});
export const conditionSchema = z.object({
  way,
  of: z.enum(quantities).default('some'),
  shown: shownSchema,
  test: z.enum(tests),
  values: z.array(z.string().max(500)).max(200).default([]),
});

/** What a register shows, apart from where. */
export const registerWhatSchema = z.object({
  kinds: z.array(name).max(100).default([]),
  columns: z.array(columnSchema).max(60).default([]),
  conditions: z.array(conditionSchema).max(30).default([]),
  match: z.enum(['all', 'any']).default('all'),
  sort: z
    .array(z.object({ column: name, descending: z.boolean().default(false) }))
    .max(6)
    .default([]),
  group: z.array(name).max(4).default([]),
  shape: z.enum(['list', 'outline']).default('list'),
  rows: z.enum(['items', 'usages']).optional(),
  frozen: z.number().int().min(0).max(60).optional(),
});
export type RegisterWhatBody = z.output<typeof registerWhatSchema>;

/** Where a register looks: collections, and what stands below some items; everywhere where nothing is named. */
export const registerWhereSchema = z.object({
  collections: z.array(idSchema).max(200).default([]),
  below: z.array(idSchema).max(200).default([]),
  /** Systems: only what is used in one of them. */
  usedIn: z.array(idSchema).max(50).optional(),
  /** A kept lens that everything is looked at through. */
  lens: idSchema.optional(),
});
export type RegisterWhereBody = z.output<typeof registerWhereSchema>;
/** What to show, and where. */
export interface RegisterAsked {
  what: RegisterWhatBody;
  where: RegisterWhereBody;
}

const valueSchema = z.union([z.null(), z.string(), z.number(), z.boolean(), z.array(z.string())]);
export type RegisterValue = z.infer<typeof valueSchema>;

const registerRow = z.object({
  item: briefSchema,
  revision: z.number(),
  cells: z.array(valueSchema),
  /** Of an outline: how deep it stands, and whether it is there only for what stands below it. */
  depth: z.number(),
  isContext: z.boolean(),
  /** Of a register of uses: ids of the parts that lead to the item, which is the last. */
  use: z.array(idSchema).optional(),
});
export type RegisterRow = z.infer<typeof registerRow>;

/** By the places of the columns; nothing for those that are not asked. */
const talliesSchema = z.array(z.union([z.null(), z.string(), z.number()]));

export const queryRegister = endpoint({
  method: 'POST',
  path: '/projects/:project/register',
  summary: 'A window of a register: what it shows, where; with its groups and how many items it has. Nothing is stored',
  params: projectParams,
  body: z.object({
    what: registerWhatSchema,
    where: registerWhereSchema.default({ collections: [], below: [] }),
    offset: wholeNumber.default(0),
    limit: z.number().int().min(0).max(500).default(100),
  }),
  reply: z.object({
    seq: z.number(),
    total: z.number(),
    /** Rows, with those that an outline has for what stands below them. */
    rowCount: z.number(),
    groups: z.array(z.object({ values: z.array(z.string()), count: z.number(), tallies: talliesSchema })),
    /** What each column that is asked for it says of all rows. */
    tallies: talliesSchema,
    columns: z.array(
      z.object({
        id: z.string(),
        /** Nothing where what it shows is not in the project. */
        type: z.enum(['words', 'number', 'moment', 'yesNo', 'choice', 'several']).nullable(),
        /** The field that its cells are edited as, where they are. */
        field: z.string().nullable(),
      }),
    ),
    /** Conditions that ask for what is not in the project, by their places: they narrow nothing. */
    unknown: z.array(z.number()),
    offset: z.number(),
    rows: z.array(registerRow),
  }),
});

export const saveRegister = endpoint({
  method: 'POST',
  path: '/projects/:project/register/save/:format',
  summary: 'All rows of a register as a workbook or as separated values',
  params: projectParams.extend({ format: z.enum(['xlsx', 'csv']) }),
  body: z.object({
    what: registerWhatSchema,
    where: registerWhereSchema.default({ collections: [], below: [] }),
    name: z.string().trim().max(120).default('Register'),
  }),
  produces: 'application/octet-stream',
  reply: z.string(),
});

/** A cell as somebody wrote it: the title or a field of an item, or the references of what it is linked with. */
const writtenCell = z.object({
  item: idSchema,
  /** The parts that lead to one use of the item, where what is written is to hold there only. */
  use: z.array(idSchema).min(2).max(60).optional(),
  column: z.discriminatedUnion('sort', [
    z.object({ sort: z.literal('title') }),
    z.object({ sort: z.literal('field'), field: name }),
    z.object({ sort: z.literal('links'), linkKind: name, end: z.enum(['from', 'to']) }),
  ]),
  text: z.string().max(100_000),
});
export type WrittenCell = z.infer<typeof writtenCell>;

export const writeCells = endpoint({
  method: 'POST',
  path: '/projects/:project/cells',
  summary:
    'Writes cells as a spreadsheet has them: titles, fields as their types read them, references of linked items; all of them one undo. With `dryRun` nothing is stored',
  params: projectParams,
  body: z.object({
    cells: z.array(writtenCell).min(1).max(20_000),
    dryRun: z.boolean().default(false),
    /** Leave out what cannot be written, instead of writing nothing. */
    skipRefused: z.boolean().default(false),
  }),
  reply: batchReply.extend({
    changed: z.number(),
    /** By the places of the cells. */
    refused: z.array(z.object({ cell: z.number(), says: z.string() })),
  }),
});
