import { type FieldRole, fieldRoles, fieldTypeIds, type KindRole, kindRoles, type LinkRole, linkRoles, type SchemeSort } from '@coomb/core';
import { z } from 'zod';
import { wholeNumber } from './common.js';

const roleOf = <R extends string>(roles: Record<R, unknown>) => z.enum(Object.keys(roles) as [R, ...R[]]);

export const fieldValueSchema = z.union([z.string().max(200_000), z.number(), z.boolean(), z.array(z.string().max(2000)), z.null()]);
export const fieldsSchema = z.record(z.string(), fieldValueSchema);

export const fieldSchema = z.object({
  id: z.string(),
  label: z.string(),
  type: z.enum(fieldTypeIds),
  options: z.array(z.string()).optional(),
  unit: z.string().optional(),
  meaning: z.boolean().optional(),
  required: z.boolean().optional(),
  default: fieldValueSchema.optional(),
  role: roleOf<FieldRole>(fieldRoles).optional(),
});

export const kindSchema = z.object({
  id: z.string(),
  label: z.string(),
  plural: z.string(),
  layer: z.string(),
  fields: z.array(fieldSchema),
  informative: z.boolean().optional(),
  roles: z.array(roleOf<KindRole>(kindRoles)).optional(),
  home: z.string().optional(),
  retired: z.boolean().optional(),
});

export const linkKindSchema = z.object({
  id: z.string(),
  phrase: z.string(),
  reverse: z.string(),
  fromKinds: z.array(z.string()),
  toKinds: z.array(z.string()),
  upstream: z.enum(['from', 'to']),
  role: roleOf<LinkRole>(linkRoles).optional(),
  fields: z.array(fieldSchema).optional(),
  retired: z.boolean().optional(),
});

const filterSchema = z.object({
  kinds: z.array(z.string()),
  field: z.object({ id: z.string(), oneOf: z.array(z.string()) }).optional(),
});

const ruleFacts = {
  label: z.string(),
  of: filterSchema,
  along: z.array(z.object({ linkKind: z.string(), direction: z.enum(['out', 'in']) })),
  steps: z.number().int().min(1).max(8),
  atLeast: z.number().int().min(1),
  reach: filterSchema,
  throughUsages: z.boolean().optional(),
};
export const coverageRuleSchema = z.object({ id: z.string(), ...ruleFacts, sentence: z.string() });
export const verificationRuleSchema = z.object({ of: filterSchema, verifies: z.string(), derives: z.string().nullable(), waivedBy: z.string() });

export const schemeSchema = z.object({
  layers: z.array(z.object({ id: z.string(), label: z.string() })),
  kinds: z.array(kindSchema),
  linkKinds: z.array(linkKindSchema),
  rules: z.array(coverageRuleSchema),
  verification: verificationRuleSchema,
});

const key = z.string().min(1).max(100);
const label = z.string().trim().max(120);
const keys = z.array(key).max(300);
const filter = z.object({ kinds: keys, field: z.object({ id: key, oneOf: z.array(z.string().max(200)).max(500) }).optional() });

/** What each sort of part says. Names that are missing, keys that name nothing and the like are told with their part, not refused here. */
export const schemeBodies = {
  layer: z.object({ label }),
  kind: kindSchema.omit({ id: true, fields: true, retired: true }).extend({ label, plural: label, layer: z.string().max(100) }),
  field: fieldSchema.omit({ id: true }).extend({
    label,
    options: z.array(z.string().trim().max(200)).max(500).optional(),
    unit: z.string().trim().max(20).optional(),
    kinds: keys,
    linkKinds: keys,
  }),
  linkKind: linkKindSchema.omit({ id: true, fields: true, retired: true }).extend({ phrase: label, reverse: label, fromKinds: keys, toKinds: keys }),
  rule: z.object({ ...ruleFacts, label, of: filter, reach: filter, along: ruleFacts.along.max(300), atLeast: z.number().int().min(1).max(1000) }),
  verification: verificationRuleSchema.extend({ of: filter }),
} satisfies { [S in SchemeSort]: z.ZodType };

const partOf = <S extends SchemeSort>(sort: S) => z.object({ sort: z.literal(sort), key, rank: z.number(), retired: z.boolean(), body: schemeBodies[sort] });
const partSchemas = [partOf('layer'), partOf('kind'), partOf('field'), partOf('linkKind'), partOf('rule'), partOf('verification')] as const;

/** A part of a scheme; its `revision` is null where it is to be made. */
export const schemePartSchema = z.discriminatedUnion('sort', [...partSchemas]);
export const schemeEditSchema = z.discriminatedUnion('sort', [
  partSchemas[0].extend({ revision: wholeNumber.nullable() }),
  partSchemas[1].extend({ revision: wholeNumber.nullable() }),
  partSchemas[2].extend({ revision: wholeNumber.nullable() }),
  partSchemas[3].extend({ revision: wholeNumber.nullable() }),
  partSchemas[4].extend({ revision: wholeNumber.nullable() }),
  partSchemas[5].extend({ revision: wholeNumber.nullable() }),
]);
export type SchemeEdit = z.infer<typeof schemeEditSchema>;

const listed = <S extends SchemeSort>(sort: S) => z.array(z.object({ key }).and(schemeBodies[sort]));

/** A scheme as a file, for other projects. */
export const schemeFileSchema = z.object({
  coombScheme: z.literal(1),
  name: z.string().trim().min(1).max(120),
  layers: listed('layer').max(100),
  kinds: listed('kind').max(300),
  fields: listed('field').max(2000),
  linkKinds: listed('linkKind').max(250),
  rules: listed('rule').max(300),
  verification: schemeBodies.verification,
});
