import { z } from 'zod';
import { idSchema, projectParams, timeSchema, wholeNumber } from './common.js';
import { endpoint } from './endpoint.js';

export const baselineSchema = z.object({
  id: idSchema,
  name: z.string(),
  note: z.string(),
  /** Number of the change after which things stood so: what `asOf` takes. */
  seq: z.number(),
  person: z.string(),
  at: timeSchema,
});
export type Baseline = z.infer<typeof baselineSchema>;

const baselineParams = projectParams.extend({ baseline: idSchema });

export const listBaselines = endpoint({
  method: 'GET',
  path: '/projects/:project/baselines',
  summary: 'Moments of the project that somebody gave a name, the newest moment first',
  params: projectParams,
  reply: z.array(baselineSchema),
});
export const createBaseline = endpoint({
  method: 'POST',
  path: '/projects/:project/baselines',
  summary: 'Give a moment of the project a name: the present, or the one after an earlier change',
  params: projectParams,
  body: z.object({ name: z.string().trim().min(1).max(200), note: z.string().trim().max(5000).default(''), seq: wholeNumber.min(1).optional() }),
  reply: baselineSchema,
});
export const withdrawBaseline = endpoint({
  method: 'POST',
  path: '/projects/:project/baselines/:baseline/withdraw',
  summary: 'Take a name of a moment back; the moment can still be read by its number',
  params: baselineParams,
  reply: z.object({ seq: z.number() }),
});
