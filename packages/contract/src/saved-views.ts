import { z } from 'zod';
import { idSchema, projectParams, timeSchema } from './common.js';
import { endpoint } from './endpoint.js';

/** A view that somebody keeps under a name, for everybody. */
export const savedViewSchema = z.object({
  id: idSchema,
  sort: z.string(),
  name: z.string(),
  /** What was kept, in the present form of its sort; null where this program does not read it. */
  body: z.record(z.string(), z.unknown()).nullable(),
  person: z.string(),
  at: timeSchema,
});
export type SavedView = z.infer<typeof savedViewSchema>;

export const listSavedViews = endpoint({
  method: 'GET',
  path: '/projects/:project/views',
  summary: 'Views that are kept under names, of one sort or all, by name',
  params: projectParams,
  query: z.object({ sort: z.string().max(60).optional() }),
  reply: z.array(savedViewSchema),
});

const name = z.string().trim().min(1, 'Give it a name').max(120);
export const keepView = endpoint({
  method: 'POST',
  path: '/projects/:project/views',
  summary: 'Keep how a view is set under a name; one of the same sort and name is kept anew',
  params: projectParams,
  body: z.object({ sort: z.string().max(60), name, body: z.record(z.string(), z.unknown()) }),
  reply: savedViewSchema,
});

const viewParams = projectParams.extend({ view: idSchema });
export const renameView = endpoint({
  method: 'PATCH',
  path: '/projects/:project/views/:view',
  summary: 'Call a kept view otherwise',
  params: viewParams,
  body: z.object({ name }),
  reply: savedViewSchema,
});

export const withdrawView = endpoint({
  method: 'DELETE',
  path: '/projects/:project/views/:view',
  summary: 'Keep a view no more; undo brings it back',
  params: viewParams,
  reply: z.object({ seq: z.number() }),
});
