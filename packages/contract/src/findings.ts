import { z } from 'zod';
import { MOST_SOUGHT, batchReply, briefSchema, idSchema, projectParams, timeSchema, wholeNumber, wholeNumberText } from './common.js';
import { endpoint } from './endpoint.js';
import { errandSchema, findingKey, personName } from './errands.js';

/** Where rules come from: what must be covered, evidence, links, what texts say. */
export const findingGroups = ['coverage', 'evidence', 'links', 'texts'] as const;
/** Groups that can be found in the past as they can now: texts are compared as they are. */
export const trendGroups = ['coverage', 'evidence', 'links'] as const;

/** Open: nobody waived it. Taken: somebody has it in hand. */
export const findingStates = ['open', 'waived', 'taken', 'mine', 'all'] as const;
export type FindingState = (typeof findingStates)[number];

const mendingSort = z.enum(['removeLink', 'confirmLink', 'holdEverywhere', 'changeKind', 'restoreItem', 'letGo']);

export const findingSchema = z.object({
  key: z.string(),
  rule: z.string(),
  item: briefSchema,
  /** The item at the other end, or further on, where there is one. */
  other: briefSchema.nullable(),
  links: z.array(idSchema),
  says: z.string(),
  waiver: z.object({ id: idSchema, person: z.string(), reason: z.string(), approver: z.string().nullable(), until: z.iso.date().nullable() }).nullable(),
  errand: errandSchema.nullable(),
  /** What may be done in one step. `at` tells apart steps of one sort. */
  mendings: z.array(z.object({ sort: mendingSort, at: wholeNumber, label: z.string() })),
});
export type Finding = z.infer<typeof findingSchema>;

export const findingRuleSchema = z.object({
  id: z.string(),
  label: z.string(),
  explains: z.string(),
  group: z.enum(findingGroups),
  weight: z.enum(['wrong', 'look']),
  open: z.number(),
  waived: z.number(),
  taken: z.number(),
});
export type FindingRule = z.infer<typeof findingRuleSchema>;

export const listFindings = endpoint({
  method: 'GET',
  path: '/projects/:project/findings',
  summary: 'What rules find, rule by rule: waived or not, and who has it in hand; a window of the list',
  params: projectParams,
  query: z.object({
    rule: z.string().max(100).optional(),
    state: z.enum(findingStates).default('open'),
    collection: idSchema.optional(),
    /** Only what is found at items that are seen through it; rules are counted so, too. */
    lens: idSchema.optional(),
    words: z.string().max(MOST_SOUGHT).default(''),
    offset: wholeNumberText.default(0),
    limit: z.coerce.number().int().min(1).max(1000).default(200),
  }),
  reply: z.object({ seq: z.number(), rules: z.array(findingRuleSchema), total: z.number(), findings: z.array(findingSchema) }),
});

export const waiveFindings = endpoint({
  method: 'POST',
  path: '/projects/:project/findings/waive',
  summary: 'Accept findings by name, with a reason, who agreed and until when',
  params: projectParams,
  body: z.object({
    findings: z.array(findingKey).min(1).max(5000),
    reason: z.string().trim().min(5, 'Say in a few words why this is accepted').max(2000),
    approver: personName.nullable().default(null),
    until: z.iso.date().nullable().default(null),
  }),
  reply: batchReply,
});

export const mendFindings = endpoint({
  method: 'POST',
  path: '/projects/:project/findings/mend',
  summary: 'Mend findings in one step of theirs; all of them, or none',
  params: projectParams,
  body: z.object({
    findings: z
      .array(z.object({ key: findingKey, sort: mendingSort, at: wholeNumber.default(0) }))
      .min(1)
      .max(1000),
  }),
  reply: batchReply,
});

export const trendFindings = endpoint({
  method: 'GET',
  path: '/projects/:project/findings/trend',
  summary: 'How many findings were open after some changes, the last one among them',
  params: projectParams,
  query: z.object({
    points: z.coerce.number().int().min(2).max(24).default(8),
    /** Only at items that were seen through it, as it is kept now, at each moment. */
    lens: idSchema.optional(),
  }),
  reply: z.array(z.object({ seq: z.number(), at: timeSchema, open: z.record(z.enum(trendGroups), z.number()) })),
});
