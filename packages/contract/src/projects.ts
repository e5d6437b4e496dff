import { z } from 'zod';
import { batchReply, idSchema, projectParams, timeSchema } from './common.js';
import { endpoint } from './endpoint.js';
import { fieldSchema, schemeFileSchema, schemeSchema } from './scheme.js';

export const holdsSchema = z.enum(['specification', 'model', 'tests']);

export const collectionSchema = z.object({
  id: idSchema,
  name: z.string(),
  holds: holdsSchema,
  prefix: z.string(),
  kind: z.string(),
  withdrawn: z.boolean(),
  /** The set that it belongs to; null for those of the whole project. */
  set: idSchema.nullable(),
  items: z.number(),
});
export type Collection = z.infer<typeof collectionSchema>;

/** One live number per stage of the course of work: what waits there. */
export const waitingSchema = z.object({ gather: z.number(), shape: z.number(), link: z.number(), check: z.number(), publish: z.number() });

export const standings = ['open', 'archived', 'out'] as const;
/** `open` is worked on; `archived` can be read, not changed; `out` is out of the list, and can be put back. */
export const standingSchema = z.enum(standings);

export const projectSchema = z.object({
  id: idSchema,
  name: z.string(),
  createdAt: timeSchema,
  items: z.number(),
  links: z.number(),
  standing: standingSchema,
});
export const setSchema = z.object({ id: idSchema, name: z.string(), revision: z.number() });

export const listProjects = endpoint({ method: 'GET', path: '/projects', summary: 'All projects', reply: z.array(projectSchema) });

export const createProject = endpoint({
  method: 'POST',
  path: '/projects',
  summary: 'Start a project: with the usual scheme, with a starter and its collections and first outline, or with the scheme of a file',
  body: z.object({
    name: z.string().trim().min(1).max(120),
    starter: z.string().max(100).optional(),
    /** Whether the collections and the first outline of the starter come along. */
    outline: z.boolean().default(true),
    scheme: schemeFileSchema.optional(),
  }),
  reply: projectSchema,
});

export const getProject = endpoint({
  method: 'GET',
  path: '/projects/:project',
  summary: 'A project: its vocabulary, collections and what waits at each stage',
  params: projectParams,
  reply: projectSchema.extend({
    seq: z.number(),
    scheme: schemeSchema,
    collections: z.array(collectionSchema),
    sets: z.array(setSchema),
    waiting: waitingSchema,
  }),
});

export const renameProject = endpoint({
  method: 'PATCH',
  path: '/projects/:project',
  summary: 'Rename a project',
  params: projectParams,
  body: z.object({ name: z.string().trim().min(1).max(120) }),
  reply: projectSchema,
});

export const setStanding = endpoint({
  method: 'POST',
  path: '/projects/:project/standing',
  summary: 'Archive a project, take it out of the list, or put it back',
  params: projectParams,
  body: z.object({ standing: standingSchema }),
  reply: projectSchema,
});

const prefixSchema = z
  .string()
  .trim()
  .regex(/^[A-Za-z][A-Za-z0-9]{0,9}$/, 'A prefix is 1 to 10 letters or digits and starts with a letter');

export const createCollection = endpoint({
  method: 'POST',
  path: '/projects/:project/collections',
  summary: 'Add an empty collection',
  params: projectParams,
  body: z.object({
    name: z.string().trim().min(1).max(120),
    holds: holdsSchema,
    prefix: prefixSchema,
    kind: z.string(),
  }),
  reply: collectionSchema,
});

export const addFields = endpoint({
  method: 'POST',
  path: '/projects/:project/fields',
  summary: 'Add fields to kinds, as one undoable step; a field of the same name and type that a kind has already is taken instead',
  params: projectParams,
  body: z.object({
    fields: z
      .array(
        z.object({
          kind: z.string(),
          label: z.string().trim().min(1).max(80),
          type: fieldSchema.shape.type,
          options: z.array(z.string().trim().min(1).max(200)).max(500).optional(),
          unit: z.string().trim().max(20).optional(),
        }),
      )
      .min(1)
      .max(200),
  }),
  reply: z.object({ fields: z.array(fieldSchema) }),
});

const collectionParams = projectParams.extend({ collection: idSchema });
export const editCollection = endpoint({
  method: 'PATCH',
  path: '/projects/:project/collections/:collection',
  summary: 'Rename a collection, give its new items another prefix or kind, or move it to another set or place',
  params: collectionParams,
  body: z.object({
    name: z.string().trim().min(1).max(120).optional(),
    prefix: prefixSchema.optional(),
    kind: z.string().max(100).optional(),
    set: idSchema.nullable().optional(),
    /** The collection that it stands before; null: behind all others. */
    before: idSchema.nullable().optional(),
  }),
  reply: collectionSchema,
});

export const withdrawCollection = endpoint({
  method: 'POST',
  path: '/projects/:project/collections/:collection/withdraw',
  summary: 'Withdraw a collection with all its items',
  params: collectionParams,
  reply: batchReply,
});

/** What a further set would bring: the collections that it makes, those that it shares, and what the scheme lacks for it. */
export const setPlanSchema = z.object({
  collections: z.array(z.object({ name: z.string(), prefix: z.string(), kind: z.string(), sections: z.number(), shared: z.boolean() })),
  parts: z.array(z.object({ sort: z.string(), label: z.string() })),
});
const setWish = z.object({ name: z.string().trim().min(1).max(120), starter: z.string().max(100), initials: z.string().trim().max(4).default('') });

export const planSet = endpoint({
  method: 'POST',
  path: '/projects/:project/sets/plan',
  summary: 'What a further set of collections would bring',
  params: projectParams,
  body: setWish,
  reply: setPlanSchema,
});

export const createSet = endpoint({
  method: 'POST',
  path: '/projects/:project/sets',
  summary: 'Add a set of collections with a first outline; what is shared is used as it is there',
  params: projectParams,
  body: setWish,
  reply: setSchema,
});

const setParams = projectParams.extend({ set: idSchema });
export const editSet = endpoint({
  method: 'PATCH',
  path: '/projects/:project/sets/:set',
  summary: 'Rename a set, or move it before another (null: behind all)',
  params: setParams,
  body: z.object({ name: z.string().trim().min(1).max(120).optional(), before: idSchema.nullable().optional() }),
  reply: setSchema,
});

const mergeWish = z.object({ into: idSchema.nullable() });
export const planMerge = endpoint({
  method: 'POST',
  path: '/projects/:project/sets/:set/merge/plan',
  summary: 'What becomes of each collection when a set is merged into another, or into the whole project',
  params: setParams,
  body: mergeWish,
  reply: z.object({ steps: z.array(z.object({ collection: z.string(), items: z.number(), into: z.string().nullable() })) }),
});

export const mergeSets = endpoint({
  method: 'POST',
  path: '/projects/:project/sets/:set/merge',
  summary: 'Merge a set into another: like collections become one, others move, as one undoable step',
  params: setParams,
  body: mergeWish,
  reply: batchReply,
});
