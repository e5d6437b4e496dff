import { z } from 'zod';
import { batchReply, idSchema, projectParams } from './common.js';
import { endpoint } from './endpoint.js';

/** An end of an item's link that lies in a file which may come later. */
export const waitingEndSchema = z.object({
  id: idSchema,
  /** How the likeliest link reads from the item that waits. */
  phrase: z.string(),
  /** The other end as the file names it: an address, # and an identifier. */
  target: z.string(),
});

export const joinWaitingEnd = endpoint({
  method: 'POST',
  path: '/projects/:project/waiting-ends/:end/join',
  summary: 'Join an end that waits with an item, by id or reference',
  params: projectParams.extend({ end: idSchema }),
  body: z.object({ item: z.string().trim().min(1).max(200) }),
  reply: batchReply,
});

export const endWaiting = endpoint({
  method: 'POST',
  path: '/projects/:project/waiting-ends/:end/let-go',
  summary: 'Let go of an end that waits: no link comes of it',
  params: projectParams.extend({ end: idSchema }),
  reply: batchReply,
});
