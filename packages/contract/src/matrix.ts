import { z } from 'zod';
import { idSchema, lifeSchema, projectParams, wholeNumber } from './common.js';
import { endpoint } from './endpoint.js';
import { shownSchema, waySchema } from './register.js';

const name = z.string().min(1).max(200);

/** One side of a matrix: items of collections and kinds, below some items; where nothing is named, of all. */
export const matrixScopeSchema = z.object({
  collections: z.array(idSchema).max(200).default([]),
  kinds: z.array(name).max(100).default([]),
  below: z.array(idSchema).max(200).default([]),
});
export type MatrixScope = z.output<typeof matrixScopeSchema>;

/** Marks that one matrix shows at most: a cell holds them as bits. */
export const MOST_MARKS = 30;
/** What a matrix marks: the ways from a row's item to a column's, of one link or of several. */
export const matrixMarksSchema = z.array(waySchema.min(1)).max(MOST_MARKS);

const scopes = { rows: matrixScopeSchema, columns: matrixScopeSchema };

export const readMatrix = endpoint({
  method: 'POST',
  path: '/projects/:project/matrix',
  summary:
    'What stands between the items of two scopes: links, and ways through intermediate items, each with its own mark. Where no way is named, every kind of link',
  params: projectParams,
  body: z.object({
    ...scopes,
    marks: matrixMarksSchema.default([]),
    /** What each side is grouped by, instead of by its outline. */
    rowsBy: shownSchema.optional(),
    columnsBy: shownSchema.optional(),
  }),
  reply: z.object({
    seq: z.number(),
    life: lifeSchema,
    /** The ways that are marked, and how many entries each has. */
    marks: z.array(z.object({ way: waySchema, count: z.number() })),
    /** Entries as `packEntries` packs them, by nodes, in base64. */
    entries: z.string(),
    /** How the usages read that entries hold in only, and the ids of the items on their paths. */
    usages: z.array(z.string()),
    usagePaths: z.array(z.array(idSchema)),
    rowGroups: z.array(z.object({ label: z.string(), nodes: z.array(z.number()) })).nullable(),
    columnGroups: z.array(z.object({ label: z.string(), nodes: z.array(z.number()) })).nullable(),
  }),
});

export const MOST_CELLS = 5000;

export const readCells = endpoint({
  method: 'POST',
  path: '/projects/:project/matrix/cells',
  summary: 'The links and the paths that stand in some cells of a matrix, each cell a pair of items',
  params: projectParams,
  body: z.object({
    cells: z
      .array(z.object({ row: idSchema, column: idSchema }))
      .min(1)
      .max(MOST_CELLS),
    marks: matrixMarksSchema.default([]),
  }),
  reply: z.array(
    z.object({
      links: z.array(
        z.object({
          id: idSchema,
          linkKind: z.string(),
          /** The row's item stands at its `to` end. */
          reversed: z.boolean(),
          suspect: z.boolean(),
          /** Ids of items from a root down, where it holds in one use of that end only. */
          rowUse: z.array(idSchema).nullable(),
          columnUse: z.array(idSchema).nullable(),
        }),
      ),
      /** Paths of the ways with several steps, in words: "SYS-001 is satisfied by CMP-2 is verified by TC-3"; at most twenty of each cell. */
      paths: z.array(z.object({ mark: z.number(), says: z.string(), suspect: z.boolean() })),
    }),
  ),
});

/** Cells that a saved matrix has at most: beyond that no program opens it. */
export const MOST_SAVED_CELLS = 4_000_000;
const head = z.object({ reference: z.string().max(200), title: z.string().max(2000), depth: z.number().int().min(0).max(60) });

export const saveMatrix = endpoint({
  method: 'POST',
  path: '/projects/:project/matrix/save/:format',
  summary: 'A matrix as it is shown as a workbook with heads that stay in sight, or as separated values. Nothing is stored',
  params: projectParams.extend({ format: z.enum(['xlsx', 'csv']) }),
  body: z.object({
    name: z.string().trim().max(120).default('Trace matrix'),
    rows: z.array(head).max(100_000),
    columns: z.array(head).max(16_000),
    /** What cells say, as row, column and an index into `words`; only those that say anything. */
    words: z.array(z.string().max(500)).max(100_000),
    cells: z.array(wholeNumber).max(6_000_000),
  }),
  produces: 'application/octet-stream',
  reply: z.string(),
});
