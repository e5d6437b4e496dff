import { z } from 'zod';
import { type ErrorCode, errorStatus } from './coomb-error.js';

export * from './coomb-error.js';

export const errorReply = z.object({
  error: z.object({
    code: z.enum(Object.keys(errorStatus) as [ErrorCode, ...ErrorCode[]]),
    message: z.string(),
    details: z.record(z.string(), z.unknown()).optional(),
  }),
});
export type ErrorReply = z.infer<typeof errorReply>;
