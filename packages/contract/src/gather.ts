import { drawingChangeSorts, drawingSorts, modelNotations } from '@coomb/core';
import { z } from 'zod';
import { idSchema, issueSchema, outcomeSchema, placeSchema, projectParams, timeSchema, wholeNumber } from './common.js';
import { drawnRoute, drawnShape } from './drawings.js';
import { endpoint } from './endpoint.js';
import { holdsSchema } from './projects.js';
import { csvDialectSchema, documentRecipeSchema, exchangeRecipeSchema, modelRecipeSchema, recipeBody, sheetRecipeSchema } from './recipes.js';
import { fieldsSchema } from './scheme.js';

const words = {
  text: z.string(),
  html: z.string(),
  tracked: z.object({ text: z.string(), html: z.string(), marked: z.string() }).optional(),
  footnotes: z.array(z.object({ mark: z.string(), html: z.string() })).optional(),
  comments: z.array(z.object({ by: z.string(), text: z.string() })).optional(),
};
const cellSchema = z.object({ ...words, span: z.number(), continued: z.boolean().optional() });
export const blockSchema = z.union([
  z.object({
    type: z.literal('paragraph'),
    at: z.number(),
    page: z.number().optional(),
    level: z.number(),
    list: z.object({ depth: z.number(), ordered: z.boolean() }).optional(),
    number: z.string().optional(),
    aside: z.enum(['code', 'contents']).optional(),
    ...words,
  }),
  z.object({ type: z.literal('table'), at: z.number(), rows: z.array(z.array(cellSchema)), inside: z.number().optional() }),
]);

export const draftSchema = z.object({
  key: z.number(),
  parent: z.number(),
  role: z.enum(['section', 'item']),
  kind: z.string(),
  reference: z.string().nullable(),
  externalId: z.string().nullable(),
  title: z.string(),
  html: z.string(),
  fields: fieldsSchema,
  place: placeSchema,
});
export const draftLinkSchema = z.object({
  draft: z.number(),
  linkKind: z.string(),
  reversed: z.boolean(),
  target: z.string(),
  by: z.enum(['reference', 'source', 'title']).optional(),
  within: z.array(z.string()).optional(),
  place: placeSchema,
});
export const outcomeOfRecipe = z.object({ drafts: z.array(draftSchema), links: z.array(draftLinkSchema), issues: z.array(issueSchema) });

export const matchSchema = z.object({
  suite: z.string(),
  name: z.string(),
  outcome: outcomeSchema,
  line: z.number(),
  message: z.string(),
  test: z.object({ id: idSchema, reference: z.string(), title: z.string() }).nullable(),
  reason: z.enum(['property', 'reference', 'title']).nullable(),
  ambiguous: z.boolean(),
});

export interface ExchangeNodeShape {
  object: string;
  children: ExchangeNodeShape[];
}
const exchangeNode: z.ZodType<ExchangeNodeShape> = z.lazy(() => z.object({ object: z.string(), children: z.array(exchangeNode) }));
/** An exchange file; of a large one the first objects only, `total` says how many there are. */
const exchangeContent = z.object({
  type: z.literal('exchange'),
  title: z.string(),
  tool: z.string(),
  total: z.number(),
  types: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      count: z.number(),
      attributes: z.array(
        z.object({
          id: z.string(),
          name: z.string(),
          type: z.enum(['text', 'rich', 'choice', 'choices', 'number', 'date', 'yesNo']),
          options: z.array(z.string()).optional(),
        }),
      ),
    }),
  ),
  relationTypes: z.array(z.object({ id: z.string(), name: z.string(), count: z.number() })),
  objects: z.array(
    z.object({
      id: z.string(),
      type: z.string(),
      name: z.string(),
      values: z.record(z.string(), z.union([z.string(), z.array(z.string())])),
      line: z.number(),
    }),
  ),
  outlines: z.array(z.object({ id: z.string(), name: z.string(), nodes: z.array(exchangeNode) })),
  relations: z.array(
    z.object({ id: z.string(), type: z.string(), from: z.string(), to: z.string(), fromUse: z.string().optional(), toUse: z.string().optional() }),
  ),
  recipe: exchangeRecipeSchema,
});

const sortSchema = z.object({
  id: z.string(),
  label: z.string(),
  count: z.number(),
  values: z.array(z.object({ name: z.string(), count: z.number(), samples: z.array(z.string()) })),
});
const fileOf = { line: z.number(), file: z.string().optional() };
/** A model; of a large one the first elements only, `total` says how many there are. */
const modelContent = z.object({
  type: z.literal('model'),
  notation: z.enum(modelNotations),
  exporter: z.string(),
  total: z.number(),
  elements: z.array(
    z.object({
      id: z.string(),
      type: z.string(),
      role: z.enum(['part', 'reference', 'value', 'end', 'constraint']).optional(),
      stereotypes: z.array(z.string()),
      name: z.string(),
      parent: z.string().nullable(),
      typedBy: z.string().nullable(),
      typeName: z.string().optional(),
      text: z.string(),
      reference: z.string().nullable(),
      values: z.record(z.string(), z.string()),
      about: z.array(z.string()).optional(),
      table: z.array(z.array(z.string())).optional(),
      ...fileOf,
    }),
  ),
  relations: z.array(
    z.object({
      id: z.string(),
      type: z.string(),
      role: z.enum(['composite', 'shared']).optional(),
      stereotypes: z.array(z.string()),
      from: z.array(z.string()),
      to: z.array(z.string()),
      name: z.string(),
      values: z.record(z.string(), z.string()),
      fromUse: z.array(z.string()).optional(),
      toUse: z.array(z.string()).optional(),
      waiting: z.array(z.object({ end: z.enum(['from', 'to']), target: z.string() })).optional(),
      ...fileOf,
    }),
  ),
  drawings: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      sort: z.enum(drawingSorts),
      owner: z.string().nullable(),
      line: z.number(),
      shapes: z.number(),
      routes: z.number(),
    }),
  ),
  missing: z.array(z.object({ part: z.string(), count: z.number() })),
  elementSorts: z.array(sortSchema),
  relationSorts: z.array(sortSchema),
  recipe: modelRecipeSchema,
});

export const sheetSchema = z.object({
  name: z.string(),
  rows: z.array(z.array(z.string())),
  merges: z.array(z.object({ top: z.number(), left: z.number(), bottom: z.number(), right: z.number() })).optional(),
  dialect: csvDialectSchema.optional(),
});

/** What an uploaded file holds, before anything of it is stored. */
export const trayContent = z.discriminatedUnion('type', [
  z.object({ type: z.literal('document'), blocks: z.array(blockSchema), recipe: documentRecipeSchema }),
  z.object({ type: z.literal('sheets'), sheets: z.array(sheetSchema), recipe: sheetRecipeSchema }),
  exchangeContent,
  modelContent,
  z.object({ type: z.literal('results'), name: z.string(), at: z.string().nullable(), matches: z.array(matchSchema) }),
]);

export const trayEntry = z.object({
  id: idSchema,
  name: z.string(),
  size: z.number(),
  format: z.string(),
  label: z.string(),
  issues: z.array(issueSchema),
  content: trayContent,
});
export type TrayEntry = z.infer<typeof trayEntry>;

const trayParams = projectParams.extend({ tray: idSchema });

export const uploadFile = endpoint({
  method: 'POST',
  path: '/projects/:project/tray',
  summary: 'Hand in a file (multipart field "file"); it is read and shown, nothing is stored',
  params: projectParams,
  consumes: 'multipart/form-data',
  reply: trayEntry,
});
export const trayFile = z.object({ id: idSchema, name: z.string(), size: z.number(), format: z.string(), at: timeSchema });
export type TrayFileBrief = z.infer<typeof trayFile>;
export const readTrayAs = endpoint({
  method: 'POST',
  path: '/projects/:project/tray/:tray/read-as',
  summary: 'Read a handed-in file of separated values by another separator or quotation mark',
  params: trayParams,
  body: csvDialectSchema,
  reply: trayEntry,
});
export const listTray = endpoint({
  method: 'GET',
  path: '/projects/:project/tray',
  summary: 'Files handed in but not imported yet, the newest first; they are kept for a week',
  params: projectParams,
  reply: z.array(trayFile),
});
export const dropTrayEntry = endpoint({
  method: 'DELETE',
  path: '/projects/:project/tray/:tray',
  summary: 'Put a file away that was handed in and not imported',
  params: trayParams,
  reply: z.object({ dropped: z.boolean() }),
});
export const getTrayEntry = endpoint({
  method: 'GET',
  path: '/projects/:project/tray/:tray',
  summary: 'A file handed in but not imported yet',
  params: trayParams,
  reply: trayEntry,
});

export const getTrayPicture = endpoint({
  method: 'GET',
  path: '/projects/:project/tray/:tray/picture',
  summary: 'A picture of a file that is not imported yet, by the name that its text has for it',
  params: trayParams,
  query: z.object({ name: z.string().min(1).max(1000) }),
  produces: 'application/octet-stream',
  reply: z.string(),
});

const valueSchema = z.union([z.string(), z.number(), z.boolean(), z.null(), z.array(z.string())]);
const sideSchema = z.enum(['mine', 'theirs']);
export const choicesSchema = z.record(z.string().max(60), z.union([sideSchema, z.record(z.string().max(100), sideSchema)]));

/** Which file is a newer version of which source, and which of its items is which: `pairs` corrects what Coomb matched by itself. */
const againSchema = z.object({
  source: idSchema,
  /** Whether the file comes from another partner than that source: its items then become known to both, and each keeps a base of its own. */
  other: z.boolean().optional(),
  pairs: z
    .array(z.tuple([wholeNumber, idSchema.nullable()]))
    .max(10_000)
    .default([]),
});

const recipeWish = {
  documentRecipe: documentRecipeSchema.optional(),
  sheetRecipe: sheetRecipeSchema.optional(),
  exchangeRecipe: exchangeRecipeSchema.optional(),
  modelRecipe: modelRecipeSchema.optional(),
};

export const comparedField = z.object({
  /** `title`, `text`, `kind`, `heading`, or `field:<id>`. */
  field: z.string(),
  label: z.string(),
  base: valueSchema.optional(),
  mine: valueSchema,
  theirs: valueSchema,
  verdict: z.enum(['theirs', 'mine', 'both', 'conflict']),
});
export const comparedEntry = z.object({
  id: z.string(),
  sort: z.enum(['new', 'changed', 'moved', 'removed', 'returned', 'same']),
  conflict: z.boolean(),
  /** The item that stands here. */
  mine: z.object({ id: idSchema, reference: z.string(), title: z.string(), html: z.string(), heading: z.boolean(), links: z.number() }).nullable(),
  /** The item of the newer version; `key` is its reference there, else its identifier. */
  theirs: z.object({ draft: z.number(), key: z.string().nullable(), title: z.string(), html: z.string(), heading: z.boolean(), place: z.string() }).nullable(),
  match: z.object({ reason: z.enum(['chosen', 'key', 'same text', 'same title', 'same items', 'similar text']), likeness: z.number() }).nullable(),
  fields: z.array(comparedField),
  linksAdded: z.array(z.string()),
  linksRemoved: z.array(z.string()),
  place: z.object({ from: z.string(), to: z.string(), conflict: z.boolean() }).nullable(),
});
export type ComparedEntry = z.infer<typeof comparedEntry>;
const drawnSide = z.object({ shapes: z.array(drawnShape), routes: z.array(drawnRoute) }).nullable();
export const comparedDrawing = z.object({
  id: z.string(),
  name: z.string(),
  before: drawnSide,
  after: drawnSide,
  changes: z.array(z.object({ sort: z.enum(drawingChangeSorts), what: z.enum(['shape', 'line']), before: z.number(), after: z.number(), name: z.string() })),
});
export type ComparedDrawing = z.infer<typeof comparedDrawing>;
export const comparisonReply = z.object({
  /** Change number that the comparison holds for: the import names it again. */
  seq: z.number(),
  source: z.object({ id: idSchema, name: z.string(), importedAt: timeSchema }),
  /** Name of the newer file. */
  file: z.string(),
  collection: z.object({ id: idSchema, name: z.string() }),
  counts: z.object({
    new: z.number(),
    changed: z.number(),
    moved: z.number(),
    removed: z.number(),
    returned: z.number(),
    same: z.number(),
    conflicts: z.number(),
  }),
  /** Everything but what is the same and was matched by its key. */
  entries: z.array(comparedEntry),
  /** Drawings that are not as they were: both versions, and what differs. */
  drawings: z.array(comparedDrawing),
  issues: z.array(issueSchema),
});
export type Comparison = z.infer<typeof comparisonReply>;

export const compareFile = endpoint({
  method: 'POST',
  path: '/projects/:project/tray/:tray/compare',
  summary: 'Compare a handed-in file with what came from an older version of it, and with what stands here now; nothing is stored',
  params: trayParams,
  body: againSchema.extend({
    ...recipeWish,
  }),
  reply: comparisonReply,
});

export const checkFile = endpoint({
  method: 'POST',
  path: '/projects/:project/tray/:tray/check',
  summary:
    'What an import would find in the project: links that lead nowhere, references that are taken, the source it is a newer version of; nothing is stored',
  params: trayParams,
  body: z.object({
    ...recipeWish,
    /** As a newer version of this source: references that its items have are no news. */
    again: idSchema.optional(),
  }),
  reply: z.object({
    links: z.number(),
    issues: z.array(issueSchema),
    /** The line of versions that the file seems to go on with, by what it holds. */
    lineage: idSchema.nullable(),
  }),
});

export const importFile = endpoint({
  method: 'POST',
  path: '/projects/:project/tray/:tray/import',
  summary: 'Import a handed-in file as one undoable step; runs as a job',
  params: trayParams,
  body: z.object({
    collection: z
      .union([
        z.object({ id: idSchema }),
        z.object({
          name: z.string().trim().min(1).max(120),
          prefix: z
            .string()
            .trim()
            .regex(/^[A-Za-z][A-Za-z0-9]{0,9}$/, 'A prefix is 1 to 10 letters or digits and starts with a letter'),
          holds: holdsSchema,
        }),
      ])
      .optional(),
    ...recipeWish,
    /** Id of the kept recipe that was followed, for the list of where it was used. */
    recipe: z.string().max(100).optional(),
    runName: z.string().max(200).optional(),
    /** Import as a newer version of a source. */
    again: againSchema.extend({ seq: wholeNumber, choices: choicesSchema.default({}) }).optional(),
  }),
  reply: z.object({ job: idSchema }),
});

export const jobSchema = z.object({
  id: idSchema,
  label: z.string(),
  state: z.enum(['running', 'done', 'failed', 'cancelled']),
  /** 0 to 1. */
  progress: z.number(),
  step: z.string(),
  message: z.string(),
  outcome: z
    .object({ collection: idSchema.nullable(), items: z.number(), sections: z.number(), links: z.number(), results: z.number(), issues: z.array(issueSchema) })
    .nullable(),
});
export type Job = z.infer<typeof jobSchema>;

export const listJobs = endpoint({
  method: 'GET',
  path: '/projects/:project/jobs',
  summary: 'Running and recent jobs',
  params: projectParams,
  reply: z.array(jobSchema),
});
export const getJob = endpoint({
  method: 'GET',
  path: '/projects/:project/jobs/:job',
  summary: 'A job: how far it is, and what came of it',
  params: projectParams.extend({ job: idSchema }),
  reply: jobSchema,
});
export const cancelJob = endpoint({
  method: 'POST',
  path: '/projects/:project/jobs/:job/cancel',
  summary: 'Stop a job; nothing of it is kept',
  params: projectParams.extend({ job: idSchema }),
  reply: jobSchema,
});

export const sourceSchema = z.object({
  id: idSchema,
  name: z.string(),
  format: z.string(),
  size: z.number(),
  importedAt: timeSchema,
  importedBy: z.string(),
  items: z.number(),
  issues: z.array(issueSchema),
  /** First version of the same file. */
  lineage: idSchema,
  collection: idSchema.nullable(),
  /** What it was read by; null for files that need no recipe. */
  recipe: recipeBody.nullable(),
  /** The kept recipe that this was, if any. */
  recipeId: z.string().nullable(),
});
export const listSources = endpoint({
  method: 'GET',
  path: '/projects/:project/sources',
  summary: 'Files that items came from',
  params: projectParams,
  reply: z.array(sourceSchema),
});
