import { z } from 'zod';
import { idSchema, projectParams, timeSchema } from './common.js';
import { endpoint } from './endpoint.js';

export const batchSchema = z.object({
  id: idSchema,
  seq: z.number(),
  at: timeSchema,
  person: z.string(),
  action: z.string(),
  changes: z.number(),
  undone: z.boolean(),
});
export type Batch = z.infer<typeof batchSchema>;

export const listChanges = endpoint({
  method: 'GET',
  path: '/projects/:project/changes',
  summary: 'What was done, newest first',
  params: projectParams,
  query: z.object({ before: z.coerce.number().int().optional(), most: z.coerce.number().int().min(1).max(200).default(50) }),
  reply: z.array(batchSchema),
});

/** What undo and redo would do for the person asking. */
export const getUndo = endpoint({
  method: 'GET',
  path: '/projects/:project/undo',
  summary: 'What undo and redo would do now',
  params: projectParams,
  reply: z.object({ undo: z.string().nullable(), redo: z.string().nullable() }),
});
export const undo = endpoint({
  method: 'POST',
  path: '/projects/:project/undo',
  summary: 'Take back your last action',
  params: projectParams,
  reply: z.object({ seq: z.number(), action: z.string() }),
});
export const redo = endpoint({
  method: 'POST',
  path: '/projects/:project/redo',
  summary: 'Do again what you took back',
  params: projectParams,
  reply: z.object({ seq: z.number(), action: z.string() }),
});

/** What comes over the live stream of a project, as the `data` of server-sent events. */
export const liveEvent = z.discriminatedUnion('type', [
  z.object({ type: z.literal('hello'), seq: z.number() }),
  z.object({ type: z.literal('change'), seq: z.number(), person: z.string(), action: z.string(), items: z.array(idSchema) }),
  z.object({ type: z.literal('job'), job: idSchema, state: z.string(), progress: z.number(), step: z.string() }),
  z.object({ type: z.literal('people'), people: z.array(z.string()) }),
]);
export type LiveEvent = z.infer<typeof liveEvent>;
export const live = endpoint({
  method: 'GET',
  path: '/projects/:project/live',
  summary: 'Live changes as server-sent events',
  params: projectParams,
  query: z.object({ person: z.string().max(80).optional() }),
  produces: 'text/event-stream',
  reply: liveEvent,
});
