import { z } from 'zod';

/**
 * The life of the data that numbers of nodes and changes are counted in: another once a backup was restored. Answers of two lives must not be joined.
 */
export const lifeSchema = z.string();
export const idSchema = z.uuid();
export const timeSchema = z.iso.datetime();
export const projectParams = z.object({ project: idSchema });
export const issueSchema = z.object({ severity: z.enum(['error', 'warning', 'note']), code: z.string(), at: z.string(), message: z.string() });
export const stateSchema = z.enum(['waived', 'failing', 'stale', 'partly', 'verified', 'planned', 'unplanned', 'notApplicable']);
export const coverageStateSchema = z.enum(['met', 'suspect', 'waived', 'notMet', 'notApplicable']);
export const outcomeSchema = z.enum(['passed', 'failed', 'broken', 'skipped']);
export const placeSchema = z.object({
  block: z.number().optional(),
  row: z.number().optional(),
  sheet: z.string().optional(),
  page: z.number().optional(),
  element: z.string().optional(),
  says: z.string(),
});
/** Enough of an item to name it in a list. */
export const briefSchema = z.object({
  id: idSchema,
  node: z.number(),
  reference: z.string(),
  title: z.string(),
  kind: z.string(),
  collection: idSchema,
  heading: z.boolean(),
  withdrawn: z.boolean(),
  state: stateSchema,
});
export type Brief = z.infer<typeof briefSchema>;
/** What a changing call gives back: the batch it made. */
/** Letters of a search: what is longer is no search but a text. */
export const MOST_SOUGHT = 200;

/** A whole number that the database can count to. */
export const wholeNumber = z.number().int().min(0).max(2_147_483_647);
/** The same, as an address has it. */
export const wholeNumberText = z.coerce.number().pipe(wholeNumber);

export const batchReply = z.object({ seq: z.number(), ids: z.array(idSchema) });
