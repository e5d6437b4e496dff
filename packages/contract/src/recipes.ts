import { z } from 'zod';
import { batchReply, idSchema, projectParams, timeSchema, wholeNumber } from './common.js';
import { endpoint } from './endpoint.js';

export const meaningSchema = z.union([
  z.object({ as: z.enum(['ignore', 'reference', 'title', 'text', 'parent', 'kind', 'number']) }),
  z.object({ as: z.literal('field'), field: z.string() }),
  z.object({
    as: z.literal('link'),
    linkKind: z.string(),
    reversed: z.boolean(),
    by: z.enum(['reference', 'source', 'title']).optional(),
    within: z.array(z.string().max(200)).max(100).optional(),
  }),
]);

/** How a file of separated values parts and quotes them: one character each. */
export const csvDialectSchema = z.object({ separator: z.string().length(1), quote: z.string().length(1) });

const columns = z.array(z.object({ name: z.string(), meaning: meaningSchema })).max(500);

export const documentRecipeSchema = z.object({
  name: z.string().max(200),
  kind: z.string(),
  headings: z.array(z.enum(['section', 'item', 'ignore'])).max(9),
  identifier: z.string().max(200),
  bindingWords: z.array(z.string().max(60)).max(20),
  labels: z.array(z.object({ label: z.string(), meaning: meaningSchema })).max(200),
  tables: z.array(z.object({ header: z.string(), use: z.enum(['items', 'fields', 'text', 'ignore']), columns })).max(200),
  phrases: z
    .array(z.object({ words: z.string().trim().min(1).max(100), meaning: meaningSchema }))
    .max(100)
    .optional(),
  changes: z.enum(['accepted', 'rejected']).optional(),
  numberPrefix: z.string().max(20).optional(),
  between: z.enum(['information', 'section', 'before', 'skip']).optional(),
  paragraphs: z.enum(['numbered', 'each']).optional(),
  numberField: z.string().max(100).optional(),
  typedHeadings: z.boolean().optional(),
  constants: z.record(z.string(), z.string()).optional(),
  eachSentence: z.boolean().optional(),
});

export const sheetRecipeSchema = z.object({
  name: z.string().max(200),
  sheet: z.string(),
  headerRow: wholeNumber,
  headerRows: z.number().int().min(1).max(5).optional(),
  kind: z.string(),
  columns,
  bands: z.boolean().optional(),
  goesOn: z.boolean().optional(),
  indented: z.boolean().optional(),
  skip: z
    .array(z.object({ column: z.string(), values: z.array(z.string()).max(200) }))
    .max(50)
    .optional(),
  dialect: csvDialectSchema.optional(),
  constants: z.record(z.string(), z.string()).optional(),
});

const exchangeMeaning = z.union([meaningSchema, z.object({ as: z.literal('heading') })]);
export const exchangeRecipeSchema = z.object({
  name: z.string().max(200),
  types: z
    .array(
      z.object({
        type: z.string(),
        name: z.string(),
        kind: z.string().nullable(),
        attributes: z.array(z.object({ id: z.string(), name: z.string(), meaning: exchangeMeaning })).max(500),
      }),
    )
    .max(500),
  relations: z.array(z.object({ type: z.string(), name: z.string(), linkKind: z.string().nullable(), reversed: z.boolean() })).max(500),
});

/** Sorts of elements and relations of models, and what becomes of each. */
export const modelRecipeSchema = z.object({
  name: z.string().max(200),
  elements: z
    .array(
      z.object({
        sort: z.string().max(500),
        label: z.string().max(500),
        becomes: z.enum(['items', 'detail', 'file']),
        kind: z.string().nullable(),
        values: z.array(z.object({ name: z.string().max(300), meaning: meaningSchema })).max(500),
      }),
    )
    .max(2000),
  relations: z
    .array(z.object({ sort: z.string().max(500), label: z.string().max(500), linkKinds: z.array(z.string()).max(20), reversed: z.boolean() }))
    .max(1000),
});

/** A recipe with the sort of file that it reads. */
export const recipeBody = z.discriminatedUnion('reads', [
  z.object({ reads: z.literal('document'), recipe: documentRecipeSchema }),
  z.object({ reads: z.literal('sheet'), recipe: sheetRecipeSchema }),
  z.object({ reads: z.literal('exchange'), recipe: exchangeRecipeSchema }),
  z.object({ reads: z.literal('model'), recipe: modelRecipeSchema }),
]);
export type RecipeBody = z.infer<typeof recipeBody>;

/** A recipe as a file of its own, to be handed on. */
export const recipeFile = z.object({ coombRecipe: z.literal(1), name: z.string().trim().min(1).max(120), body: recipeBody });
export type RecipeFile = z.infer<typeof recipeFile>;

export const keptRecipe = z.object({
  id: z.string(),
  name: z.string(),
  /** Ready recipes come with Coomb: they can be copied, not changed. */
  ready: z.boolean(),
  body: recipeBody,
  changedAt: timeSchema.nullable(),
  changedBy: z.string().nullable(),
  usedBy: z.array(z.object({ id: idSchema, name: z.string(), importedAt: timeSchema })),
});
export type KeptRecipe = z.infer<typeof keptRecipe>;

export const listRecipes = endpoint({
  method: 'GET',
  path: '/projects/:project/recipes',
  summary: 'Recipes of the project and those that come with Coomb, each with the sources read by it',
  params: projectParams,
  reply: z.array(keptRecipe),
});
export const keepRecipe = endpoint({
  method: 'POST',
  path: '/projects/:project/recipes',
  summary: 'Keep a recipe in the project: a new one, or a change of one that is there',
  params: projectParams,
  body: z.object({ id: idSchema.optional(), name: z.string().trim().min(1).max(120), body: recipeBody }),
  reply: keptRecipe,
});
export const withdrawRecipe = endpoint({
  method: 'POST',
  path: '/projects/:project/recipes/:recipe/withdraw',
  summary: 'Take a recipe away; what was read by it stays',
  params: projectParams.extend({ recipe: idSchema }),
  reply: batchReply,
});
