import { z } from 'zod';
import { briefSchema, idSchema, lifeSchema, projectParams, timeSchema, wholeNumberText } from './common.js';
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
  query: z.object({ before: wholeNumberText.optional(), most: z.coerce.number().int().min(1).max(200).default(50) }),
  reply: z.array(batchSchema),
});

/** One row of a batch in words: an item, a link with both its ends, or something else by its name. */
export const batchRowSchema = z.object({
  entity: z.enum([
    'item',
    'link',
    'collection',
    'source',
    'drawing',
    'run',
    'waiver',
    'errand',
    'refusal',
    'recipe',
    'clipping',
    'schemePart',
    'set',
    'usage',
    'waitingEnd',
    'project',
    'report',
    'baseline',
    'savedView',
  ]),
  did: z.enum(['made', 'changed', 'withdrawn', 'restored']),
  item: briefSchema.nullable(),
  /** The phrase and other end of a link. */
  phrase: z.string().nullable(),
  other: briefSchema.nullable(),
  name: z.string(),
});
export const getBatch = endpoint({
  method: 'GET',
  path: '/projects/:project/changes/:seq',
  summary: 'A batch: every row that it changed',
  params: projectParams.extend({ seq: wholeNumberText }),
  query: z.object({ offset: wholeNumberText.default(0), most: z.coerce.number().int().min(1).max(500).default(200) }),
  reply: z.object({ batch: batchSchema, total: z.number(), rows: z.array(batchRowSchema) }),
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
  z.object({ type: z.literal('hello'), seq: z.number(), life: lifeSchema }),
  z.object({ type: z.literal('change'), seq: z.number(), person: z.string(), action: z.string(), items: z.array(idSchema) }),
  z.object({ type: z.literal('job'), job: idSchema, state: z.string(), progress: z.number(), step: z.string() }),
  /** Who looks on, and which item each is at, in however many windows. */
  z.object({ type: z.literal('people'), people: z.array(z.object({ name: z.string(), items: z.array(idSchema), writing: z.array(idSchema) })) }),
  /** It became another day: what holds until one may hold no more. */
  z.object({ type: z.literal('day'), day: z.string() }),
]);
export type LiveEvent = z.infer<typeof liveEvent>;
export const live = endpoint({
  method: 'GET',
  path: '/projects/:project/live',
  summary: 'Live changes as server-sent events',
  params: projectParams,
  query: z.object({ person: z.string().max(80).optional(), window: z.string().max(64).optional() }),
  produces: 'text/event-stream',
  reply: liveEvent,
});

export const sayWhere = endpoint({
  method: 'POST',
  path: '/projects/:project/live/where',
  summary: 'Say which item a window shows, and whether somebody writes in it, so that others see it',
  params: projectParams,
  body: z.object({ window: z.string().min(1).max(64), item: idSchema.nullable(), writing: z.boolean().default(false) }),
  reply: z.object({ seq: z.number() }),
});
