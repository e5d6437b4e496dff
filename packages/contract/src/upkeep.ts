import { z } from 'zod';
import { timeSchema } from './common.js';
import { endpoint } from './endpoint.js';

export const getUpkeep = endpoint({
  method: 'GET',
  path: '/upkeep',
  summary: 'Copies of the data that are made by themselves, and the room on the disk',
  reply: z.object({
    copies: z
      .object({
        folder: z.string(),
        keep: z.number(),
        everyHours: z.number(),
        newest: timeSchema.nullable(),
        /** Why the last one failed. */
        failed: z.string().nullable(),
      })
      .nullable(),
    /** Bytes. */
    free: z.number(),
  }),
});

export const getBackup = endpoint({
  method: 'GET',
  path: '/backup',
  summary: 'Everything in the data folder as one file, while people work: a gzip of tar, brought back by "coomb restore"',
  produces: 'application/gzip',
  reply: z.unknown(),
});
