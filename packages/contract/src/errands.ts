import { z } from 'zod';
import { batchReply, briefSchema, idSchema, projectParams, timeSchema } from './common.js';
import { endpoint } from './endpoint.js';

/** What is to be done at an item, or at a link of it. */
export const errandSorts = ['link', 'judge', 'mend', 'look'] as const;
export type ErrandSort = (typeof errandSorts)[number];
const sortSchema = z.enum(errandSorts);

export const personName = z.string().trim().min(1).max(80);
/** What a finding is known by: its rule, and what it is about. */
export const findingKey = z.string().min(3).max(300);

export const errandSchema = z.object({
  id: idSchema,
  sort: sortSchema,
  item: idSchema,
  link: idSchema.nullable(),
  finding: z.string().nullable(),
  note: z.string(),
  owner: z.string(),
  giver: z.string(),
  at: timeSchema,
  done: z.boolean(),
});
export type Errand = z.infer<typeof errandSchema>;

export const listErrands = endpoint({
  method: 'GET',
  path: '/projects/:project/errands',
  summary: 'What people took on or were handed, the newest first; what is done only when asked for',
  params: projectParams,
  query: z.object({ owner: z.string().max(80).optional(), done: z.enum(['no', 'all']).default('no') }),
  reply: z.array(
    errandSchema.extend({
      about: briefSchema,
      /** Whether the finding that it is to mend is there still; null where it is about none. */
      stands: z.boolean().nullable(),
    }),
  ),
});

export const giveErrands = endpoint({
  method: 'POST',
  path: '/projects/:project/errands',
  summary: 'Take something on, or hand it to a person: at items, or at links of them; whoever has it already gives it away',
  params: projectParams,
  body: z.object({
    sort: sortSchema,
    owner: personName,
    note: z.string().trim().max(1000).default(''),
    about: z
      .array(z.object({ item: idSchema, link: idSchema.optional(), finding: findingKey.optional() }))
      .min(1)
      .max(5000),
  }),
  reply: batchReply,
});

export const settleErrands = endpoint({
  method: 'POST',
  path: '/projects/:project/errands/settle',
  summary: 'Say that errands are done, or that they are not after all',
  params: projectParams,
  body: z.object({ errands: z.array(idSchema).min(1).max(5000), done: z.boolean() }),
  reply: batchReply,
});
