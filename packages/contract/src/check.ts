import { z } from 'zod';
import { briefSchema, coverageStateSchema, idSchema, projectParams, stateSchema, timeSchema } from './common.js';
import { endpoint } from './endpoint.js';
import { waiverSchema } from './items.js';

const ruleFigures = z.object({
  rule: z.string(),
  label: z.string(),
  sentence: z.string(),
  counts: z.record(coverageStateSchema, z.number()),
  applicable: z.number(),
});

/** A figure is a number that opens its items: its id names the list (`rule:tested:notMet`, `state:failing`, `links:suspect`). */
export const figureSchema = z.object({ id: z.string(), label: z.string(), count: z.number() });

export const readinessReply = z.object({
  seq: z.number(),
  rules: z.array(ruleFigures),
  states: z.array(figureSchema.extend({ state: stateSchema })),
  results: z.array(figureSchema),
  links: z.array(figureSchema),
  /** Of reports older than schemes that people change: none. */
  scheme: z.array(figureSchema).default([]),
  testsPerRequirement: z.array(figureSchema),
  requirementsPerTest: z.array(figureSchema),
  collections: z.array(
    z.object({
      id: idSchema,
      name: z.string(),
      states: z.record(stateSchema, z.number()),
      rules: z.array(z.object({ rule: z.string(), open: z.number(), applicable: z.number() })),
    }),
  ),
});
export type Readiness = z.infer<typeof readinessReply>;

export const getReadiness = endpoint({
  method: 'GET',
  path: '/projects/:project/readiness',
  summary: 'Coverage, verification states and distributions; every number is a figure that can be opened',
  params: projectParams,
  /** A kept lens: only what is seen through it counts; what covers it may stand outside. */
  query: z.object({ lens: idSchema.optional() }),
  reply: readinessReply,
});

export const getRealisation = endpoint({
  method: 'GET',
  path: '/projects/:project/realisation',
  summary: 'Layer by layer from the top: how many items are realised by the next layer, by one further below only, or not yet',
  params: projectParams,
  /** Only items that are seen through the lens are counted; what realises them may stand outside. */
  query: z.object({ lens: idSchema.optional() }),
  reply: z.array(
    z.object({
      layer: z.string(),
      label: z.string(),
      items: z.number(),
      /** The next layer that holds anything; null for the lowest. */
      next: z.string().nullable(),
      byNext: z.number(),
      below: z.number(),
      none: z.number(),
      /** Collections with what is not realised, the most first. */
      gaps: z.array(z.object({ collection: idSchema, count: z.number() })),
    }),
  ),
});

export const openFigure = endpoint({
  method: 'GET',
  path: '/projects/:project/figures/:figure',
  summary: 'The very items behind a figure, in reading order',
  params: projectParams.extend({ figure: z.string().max(200) }),
  query: z.object({ collection: idSchema.optional(), lens: idSchema.optional() }),
  /** `note` says of an item what makes it count, where that differs from item to item. */
  reply: z.object({ id: z.string(), label: z.string(), explains: z.string(), items: z.array(briefSchema.extend({ note: z.string().optional() })) }),
});

export const trendFigure = endpoint({
  method: 'GET',
  path: '/projects/:project/figures/:figure/trend',
  summary: 'What a figure was after some of the changes, the last one among them; nothing where there was no such figure then',
  params: projectParams.extend({ figure: z.string().max(200) }),
  query: z.object({ collection: idSchema.optional(), lens: idSchema.optional(), points: z.coerce.number().int().min(2).max(24).default(12) }),
  reply: z.object({ label: z.string(), points: z.array(z.object({ seq: z.number(), at: timeSchema, action: z.string(), count: z.number().nullable() })) }),
});

/** A way from an item to what covers it; `usage` says in which usage only a link holds. */
const pathSchema = z.object({ suspect: z.boolean(), steps: z.array(z.object({ phrase: z.string(), item: briefSchema, usage: z.string().nullable() })) });

export const explainCoverage = endpoint({
  method: 'GET',
  path: '/projects/:project/coverage/:rule/why/:item',
  summary: 'Why an item meets a coverage rule, or where the search ended',
  params: projectParams.extend({ rule: z.string().max(100), item: idSchema }),
  reply: z.object({
    state: coverageStateSchema,
    sentence: z.string(),
    paths: z.array(pathSchema),
    ends: z.array(briefSchema),
    looksFor: z.string(),
    /** Of a rule that is asked in each usage: how each stands by itself. */
    usages: z.array(
      z.object({
        says: z.string(),
        state: coverageStateSchema,
        paths: z.array(pathSchema),
      }),
    ),
  }),
});

export const createWaiver = endpoint({
  method: 'POST',
  path: '/projects/:project/waivers',
  summary: 'Accept a gap by name, with a reason and until a date',
  params: projectParams,
  body: z.object({
    item: idSchema,
    rule: z.string().max(100),
    reason: z.string().trim().min(5, 'Say in a few words why the gap is accepted').max(2000),
    until: z.iso.date().nullable().default(null),
  }),
  reply: waiverSchema,
});

export const withdrawWaiver = endpoint({
  method: 'POST',
  path: '/projects/:project/waivers/:waiver/withdraw',
  summary: 'Take a waiver back',
  params: projectParams.extend({ waiver: idSchema }),
  reply: waiverSchema,
});
