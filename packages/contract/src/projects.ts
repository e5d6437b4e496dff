import { z } from 'zod';
import { idSchema, projectParams, timeSchema } from './common.js';
import { endpoint } from './endpoint.js';
import { fieldSchema, schemeSchema } from './scheme.js';

export const holdsSchema = z.enum(['specification', 'model', 'tests']);

export const collectionSchema = z.object({
  id: idSchema,
  name: z.string(),
  holds: holdsSchema,
  prefix: z.string(),
  kind: z.string(),
  withdrawn: z.boolean(),
  items: z.number(),
});
export type Collection = z.infer<typeof collectionSchema>;

/** One live number per stage of the course of work: what waits there. */
export const waitingSchema = z.object({ gather: z.number(), shape: z.number(), link: z.number(), check: z.number(), publish: z.number() });

export const projectSchema = z.object({ id: idSchema, name: z.string(), createdAt: timeSchema, items: z.number(), links: z.number() });

export const listProjects = endpoint({ method: 'GET', path: '/projects', summary: 'All projects', reply: z.array(projectSchema) });

export const createProject = endpoint({
  method: 'POST',
  path: '/projects',
  summary: 'Start a project with the usual layers, kinds, link kinds and coverage rules',
  body: z.object({ name: z.string().trim().min(1).max(120) }),
  reply: projectSchema,
});

export const getProject = endpoint({
  method: 'GET',
  path: '/projects/:project',
  summary: 'A project: its vocabulary, collections and what waits at each stage',
  params: projectParams,
  reply: projectSchema.extend({ seq: z.number(), scheme: schemeSchema, collections: z.array(collectionSchema), waiting: waitingSchema }),
});

export const renameProject = endpoint({
  method: 'PATCH',
  path: '/projects/:project',
  summary: 'Rename a project',
  params: projectParams,
  body: z.object({ name: z.string().trim().min(1).max(120) }),
  reply: projectSchema,
});

export const createCollection = endpoint({
  method: 'POST',
  path: '/projects/:project/collections',
  summary: 'Add an empty collection',
  params: projectParams,
  body: z.object({
    name: z.string().trim().min(1).max(120),
    holds: holdsSchema,
    prefix: z
      .string()
      .trim()
      .regex(/^[A-Za-z][A-Za-z0-9]{0,9}$/, 'A prefix is 1 to 10 letters or digits and starts with a letter'),
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
