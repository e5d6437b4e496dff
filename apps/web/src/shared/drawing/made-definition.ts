import { madeDetails, madeSorts, type MadeDefinition, type MadeDetail } from '@coomb/core';
import { z } from 'zod';

/** What a new drawing shows, as the address says it. */
export const address = z.object({
  sort: z.enum(madeSorts).default('composition'),
  about: z.string().default(''),
  levels: z.coerce.number().int().min(1).max(12).default(2),
  detail: z.string().default(''),
});

export type NewDrawing = z.output<typeof address>;

export function readDefinition({ sort, about, levels, detail }: NewDrawing): MadeDefinition {
  return { sort, about, levels, detail: detail.split(',').filter((one): one is MadeDetail => madeDetails.includes(one as MadeDetail)) };
}

/** How a definition is asked for: in the address of a new drawing. */
export function writeDefinition({ sort, about, levels, detail }: Pick<MadeDefinition, 'sort' | 'about'> & Partial<MadeDefinition>): string {
  const params = new URLSearchParams({ sort, about });
  if (levels !== undefined) params.set('levels', String(levels));
  if (detail && detail.length > 0) params.set('detail', detail.join(','));
  return params.toString();
}
