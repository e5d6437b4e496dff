import { schemeSorts } from '@coomb/core';
import { z } from 'zod';
import { batchReply, briefSchema, projectParams, wholeNumberText } from './common.js';
import { endpoint } from './endpoint.js';
import { schemeEditSchema, schemeFileSchema } from './scheme.js';

const sortSchema = z.enum(schemeSorts);

/** What is wrong with a part: an error cannot be kept, a doubt can. */
export const schemeIssueSchema = z.object({ severity: z.enum(['error', 'doubt']), sort: sortSchema, key: z.string(), message: z.string() });

const differenceSchema = z.object({ name: z.string(), before: z.string(), after: z.string() });

/** A wish to change the scheme: parts as they are to be, choices that get another name on all items too, and what becomes of what no longer fits. */
export const schemeWish = z.object({
  edits: z.array(schemeEditSchema).max(3000),
  renames: z
    .array(z.object({ field: z.string(), from: z.string().max(200), to: z.string().trim().min(1).max(200) }))
    .max(500)
    .default([]),
  answers: z.record(z.string().max(200), z.string().max(200)).default({}),
});
export type SchemeWish = z.input<typeof schemeWish>;

/** One thing that a change would do to what is there: a number that opens, and what may become of it. The first choice keeps everything. */
export const schemeEffectSchema = z.object({
  id: z.string(),
  says: z.string(),
  count: z.number(),
  opens: z.boolean(),
  choices: z.array(z.object({ id: z.string(), label: z.string() })),
  /** The choice that holds: the one asked for, else the first. */
  chosen: z.string().nullable(),
});
export type SchemeEffect = z.infer<typeof schemeEffectSchema>;

const path = '/projects/:project/scheme';

export const getScheme = endpoint({
  method: 'GET',
  path,
  summary: 'The scheme of a project, part by part, retired ones too',
  params: projectParams,
  reply: z.object({ seq: z.number(), parts: z.array(schemeEditSchema), issues: z.array(schemeIssueSchema) }),
});

export const previewScheme = endpoint({
  method: 'POST',
  path: `${path}/preview`,
  summary: 'What a change of the scheme would do, before it is done',
  params: projectParams,
  body: schemeWish,
  reply: z.object({
    issues: z.array(schemeIssueSchema),
    effects: z.array(schemeEffectSchema),
    /** What each edited part says otherwise than before. */
    differences: z.array(z.object({ sort: sortSchema, key: z.string(), label: z.string(), isNew: z.boolean(), facts: z.array(differenceSchema) })),
  }),
});

export const openSchemeEffect = endpoint({
  method: 'POST',
  path: `${path}/preview/:effect`,
  summary: 'The very items and links behind a figure of a preview',
  params: projectParams.extend({ effect: z.string().max(200) }),
  query: z.object({ offset: wholeNumberText.default(0), limit: z.coerce.number().int().min(1).max(500).default(100) }),
  body: schemeWish,
  reply: z.object({
    total: z.number(),
    rows: z.array(z.object({ item: briefSchema.nullable(), phrase: z.string(), other: briefSchema.nullable(), note: z.string() })),
  }),
});

export const changeScheme = endpoint({
  method: 'POST',
  path,
  summary: 'Change the scheme, and what no longer fits it, as one undoable step',
  params: projectParams,
  body: schemeWish,
  reply: batchReply,
});

export const getSchemeFile = endpoint({
  method: 'GET',
  path: `${path}/file`,
  summary: 'The scheme as a file that other projects can take',
  params: projectParams,
  reply: schemeFileSchema,
});

export const getSchemeFileSchema = endpoint({
  method: 'GET',
  path: '/scheme-file.schema.json',
  summary: 'The JSON Schema of scheme files',
  reply: z.record(z.string(), z.unknown()),
});

export const compareScheme = endpoint({
  method: 'POST',
  path: `${path}/compare`,
  summary: 'A scheme file beside the scheme of the project: what is new, what differs, and the edits that would take each over',
  params: projectParams,
  body: z.object({ file: schemeFileSchema }),
  reply: z.object({
    entries: z.array(
      z.object({
        sort: sortSchema,
        key: z.string(),
        label: z.string(),
        state: z.enum(['new', 'changed', 'same']),
        facts: z.array(differenceSchema),
        edit: schemeEditSchema,
        /** Other entries, as "sort key", that must be taken with it. */
        needs: z.array(z.string()),
      }),
    ),
    onlyHere: z.array(z.object({ sort: sortSchema, key: z.string(), label: z.string() })),
  }),
});
