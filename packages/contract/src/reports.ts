import { z } from 'zod';
import { coatSchema } from './colour-key.js';
import { idSchema, projectParams, timeSchema } from './common.js';
import { endpoint } from './endpoint.js';

export const reportSummary = z.object({
  id: idSchema,
  number: z.number(),
  title: z.string(),
  at: timeSchema,
  person: z.string(),
  seq: z.number(),
  stale: z.boolean(),
});

/** Everything a report shows, frozen at the moment it was made. */
export const reportBody = z.object({
  project: z.string(),
  title: z.string(),
  note: z.string(),
  at: timeSchema,
  person: z.string(),
  seq: z.number(),
  /** What it is about, where that is not the whole project. */
  parts: z
    .object({ collections: z.array(z.object({ id: idSchema, name: z.string() })), sections: z.array(z.object({ id: idSchema, title: z.string() })) })
    .nullable()
    .default(null),
  /** The colour key that it was published with: what each entry looks like, and the references of its items. */
  colours: z.object({ name: z.string(), entries: z.array(coatSchema.extend({ label: z.string() })), items: z.array(z.array(z.string())) }).optional(),
  /** Its parts, in order. What each says is in a form of its own, which the version numbers; older forms are brought to the present one on reading. */
  blocks: z.array(z.object({ type: z.string(), version: z.number().int().min(1), data: z.unknown() })),
});
export type ReportBody = z.infer<typeof reportBody>;

export const listReports = endpoint({
  method: 'GET',
  path: '/projects/:project/reports',
  summary: 'Status reports, newest first',
  params: projectParams,
  reply: z.array(reportSummary),
});
export const createReport = endpoint({
  method: 'POST',
  path: '/projects/:project/reports',
  summary: 'Publish a status report of how things stand now',
  params: projectParams,
  body: z.object({
    title: z.string().trim().min(1).max(200),
    note: z.string().max(5000).default(''),
    /** Collections that it is about; all when unsaid. */
    collections: z.array(idSchema).min(1).max(500).optional(),
    /** Sections (or items) that it is about, with all below them. Beside `collections` they narrow the ones that they stand in; without, it is about them alone. */
    sections: z.array(idSchema).min(1).max(2000).optional(),
    /** Collections whose trace matrix goes in, as far as they are reported on: none unless asked, for each requirement is a line of it. */
    matrices: z.array(idSchema).max(500).default([]),
    /** A kept colour key of items: references have its colours, as they are now. */
    key: idSchema.optional(),
  }),
  reply: reportSummary,
});
const reportParams = projectParams.extend({ report: idSchema });
export const getReport = endpoint({
  method: 'GET',
  path: '/projects/:project/reports/:report',
  summary: 'A report as it was published',
  params: reportParams,
  reply: reportSummary.extend({ body: reportBody }),
});
export const getReportPage = endpoint({
  method: 'GET',
  path: '/projects/:project/reports/:report/page',
  summary: 'The report as one self-contained web page',
  params: reportParams,
  produces: 'text/html',
  reply: z.string(),
});
export const getReportDocument = endpoint({
  method: 'GET',
  path: '/projects/:project/reports/:report/document',
  summary: 'The report as a word-processed document',
  params: reportParams,
  produces: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  reply: z.string(),
});
