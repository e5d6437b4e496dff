import { z } from 'zod';
import { briefSchema, idSchema, outcomeSchema, projectParams, timeSchema } from './common.js';
import { endpoint } from './endpoint.js';

export const runSchema = z.object({
  id: idSchema,
  name: z.string(),
  at: timeSchema,
  counts: z.object({ passed: z.number(), failed: z.number(), broken: z.number(), skipped: z.number(), unmatched: z.number() }),
});
export const listRuns = endpoint({
  method: 'GET',
  path: '/projects/:project/runs',
  summary: 'Test runs, newest first',
  params: projectParams,
  reply: z.array(runSchema),
});

export const listRunResults = endpoint({
  method: 'GET',
  path: '/projects/:project/runs/:run/results',
  summary: 'Every result of a run, in the order of its file, with the test case it was matched to and by what',
  params: projectParams.extend({ run: idSchema }),
  reply: z.object({
    run: runSchema,
    results: z.array(
      z.object({
        suite: z.string(),
        name: z.string(),
        outcome: outcomeSchema,
        duration: z.number().nullable(),
        message: z.string(),
        reason: z.enum(['property', 'reference', 'title']).nullable(),
        test: briefSchema.nullable(),
      }),
    ),
  }),
});

export const getFile = endpoint({
  method: 'GET',
  path: '/projects/:project/files/:file',
  summary: 'A stored original or a picture taken from one',
  params: projectParams.extend({ file: idSchema }),
  produces: 'application/octet-stream',
  reply: z.string(),
});
export const getSourceFile = endpoint({
  method: 'GET',
  path: '/projects/:project/sources/:source/file',
  summary: 'The original file of a source',
  params: projectParams.extend({ source: idSchema }),
  produces: 'application/octet-stream',
  reply: z.string(),
});
