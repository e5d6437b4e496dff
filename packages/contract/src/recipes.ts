import { z } from 'zod';

export const meaningSchema = z.union([
  z.object({ as: z.enum(['ignore', 'reference', 'title', 'text', 'parent']) }),
  z.object({ as: z.literal('field'), field: z.string() }),
  z.object({ as: z.literal('link'), linkKind: z.string(), reversed: z.boolean() }),
]);

const columns = z.array(z.object({ name: z.string(), meaning: meaningSchema })).max(500);

export const documentRecipeSchema = z.object({
  name: z.string().max(200),
  kind: z.string(),
  headings: z.array(z.enum(['section', 'item', 'ignore'])).max(9),
  identifier: z.string().max(200),
  bindingWords: z.array(z.string().max(60)).max(20),
  labels: z.array(z.object({ label: z.string(), meaning: meaningSchema })).max(200),
  tables: z.array(z.object({ header: z.string(), use: z.enum(['items', 'fields', 'text', 'ignore']), columns })).max(200),
});

export const sheetRecipeSchema = z.object({ name: z.string().max(200), sheet: z.string(), headerRow: z.number().int().min(0), kind: z.string(), columns });
