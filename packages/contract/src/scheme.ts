import { fieldTypes } from '@coomb/core';
import { z } from 'zod';

export const fieldSchema = z.object({
  id: z.string(),
  label: z.string(),
  type: z.enum(fieldTypes),
  options: z.array(z.string()).optional(),
  unit: z.string().optional(),
  meaning: z.boolean().optional(),
});

export const kindSchema = z.object({
  id: z.string(),
  label: z.string(),
  plural: z.string(),
  layer: z.string(),
  fields: z.array(fieldSchema),
  informative: z.boolean().optional(),
});

export const linkKindSchema = z.object({
  id: z.string(),
  phrase: z.string(),
  reverse: z.string(),
  fromKinds: z.array(z.string()),
  toKinds: z.array(z.string()),
  upstream: z.enum(['from', 'to']),
});

const filterSchema = z.object({
  kinds: z.array(z.string()),
  field: z.object({ id: z.string(), oneOf: z.array(z.string()) }).optional(),
});

export const coverageRuleSchema = z.object({
  id: z.string(),
  label: z.string(),
  sentence: z.string(),
  of: filterSchema,
  along: z.array(z.object({ linkKind: z.string(), direction: z.enum(['out', 'in']) })),
  steps: z.number().int().min(1).max(8),
  atLeast: z.number().int().min(1),
  reach: filterSchema,
});

export const schemeSchema = z.object({
  layers: z.array(z.object({ id: z.string(), label: z.string() })),
  kinds: z.array(kindSchema),
  linkKinds: z.array(linkKindSchema),
  rules: z.array(coverageRuleSchema),
  verification: z.object({ of: filterSchema, verifies: z.string(), derives: z.string().nullable(), waivedBy: z.string() }),
});

export const fieldValueSchema = z.union([z.string().max(200_000), z.number(), z.boolean(), z.array(z.string().max(2000)), z.null()]);
export const fieldsSchema = z.record(z.string(), fieldValueSchema);
