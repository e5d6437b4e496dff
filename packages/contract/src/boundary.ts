import { z } from 'zod';
import { briefSchema, idSchema, projectParams } from './common.js';
import { endpoint } from './endpoint.js';
import { fieldsSchema } from './scheme.js';

/** An allocation as one of its ends has it, with what its own fields say. */
const allocation = z.object({ link: idSchema, other: briefSchema, revision: z.number(), fields: fieldsSchema });

export const getBoundary = endpoint({
  method: 'GET',
  path: '/projects/:project/boundary',
  summary: 'A context: the system and what is outside it, the top function of each, and who performs which function; what is missing is counted',
  params: projectParams,
  query: z.object({ about: idSchema.optional() }),
  reply: z.object({
    /** Components with parts, which may be contexts. */
    contexts: z.array(briefSchema),
    context: briefSchema.nullable(),
    members: z.array(z.object({ part: briefSchema, system: briefSchema, functions: z.array(allocation) })),
    functions: z.array(z.object({ item: briefSchema, depth: z.number(), performers: z.array(allocation) })),
    /** Members without a function, and functions that nobody performs. */
    missing: z.object({ functions: z.number(), performers: z.number() }),
  }),
});

export const makeContext = endpoint({
  method: 'POST',
  path: '/projects/:project/boundary',
  summary: 'Make a context composed of systems that are there: a component with a part for each, in one change',
  params: projectParams,
  body: z.object({ title: z.string().trim().min(1).max(200), systems: z.array(idSchema).max(100) }),
  reply: z.object({ seq: z.number(), context: idSchema }),
});

export const addMember = endpoint({
  method: 'POST',
  path: '/projects/:project/boundary/:context/members',
  summary: 'Add a system to a context: one that is there, or a new one by its name',
  params: projectParams.extend({ context: idSchema }),
  body: z.union([z.object({ system: idSchema }), z.object({ title: z.string().trim().min(1).max(200) })]),
  reply: z.object({ seq: z.number(), part: idSchema }),
});
