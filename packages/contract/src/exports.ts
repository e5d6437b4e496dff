import { z } from 'zod';
import { idSchema, projectParams } from './common.js';
import { endpoint } from './endpoint.js';
import { recipeFile } from './recipes.js';

export const exportFormats = ['xlsx', 'csv', 'md', 'reqif', 'model', 'xmi'] as const;
export type ExportFormat = (typeof exportFormats)[number];
const format = z.enum(exportFormats);
const ofCollection = projectParams.extend({ collection: idSchema, format });
const ofItems = projectParams.extend({ format });
/** Whose file is written on where several sent one: a line of versions, by its first source. The first to send one where nothing is said. */
const partner = z.object({ partner: idSchema.optional() });
/** Items of any collections; what stands above them comes along. */
const chosen = z.object({ items: z.array(idSchema).min(1, 'Choose items first').max(100_000) });

export const exportCollection = endpoint({
  method: 'GET',
  path: '/projects/:project/collections/:collection/export/:format',
  summary:
    'A collection as a workbook, separated values, Markdown, ReqIF, the model file that it came from, or that model as UML in standard XMI; a ReqIF or model file that came in goes out unchanged but for what changed here',
  params: ofCollection,
  query: partner,
  produces: 'application/octet-stream',
  reply: z.string(),
});
export const getExportRecipe = endpoint({
  method: 'GET',
  path: '/projects/:project/collections/:collection/export/:format/recipe',
  summary: 'The recipe that reads such an export back',
  params: ofCollection,
  query: partner,
  reply: recipeFile,
});
export const exportItems = endpoint({
  method: 'POST',
  path: '/projects/:project/export/:format',
  summary: 'Chosen items, of one collection or several, in the same formats',
  params: ofItems,
  body: chosen,
  produces: 'application/octet-stream',
  reply: z.string(),
});
export const getItemsRecipe = endpoint({
  method: 'POST',
  path: '/projects/:project/export/:format/recipe',
  summary: 'The recipe that reads such an export of chosen items back',
  params: ofItems,
  body: chosen,
  reply: recipeFile,
});

const outAndBack = z.object({ out: z.number().int(), back: z.number().int() });
const readBack = z.object({
  name: z.string(),
  /** Size of the file. */
  bytes: z.number().int(),
  items: outAndBack,
  links: outAndBack,
  pictures: outAndBack,
  /** Every kind of difference, with the first items it was found at; an item that did not go out has no id. */
  differences: z.array(
    z.object({
      what: z.string(),
      count: z.number().int(),
      items: z.array(z.object({ id: z.string(), reference: z.string() })),
      before: z.string(),
      after: z.string(),
      /** Both are rich text whose words are the same. */
      isMarkup: z.boolean(),
    }),
  ),
});
export type ReadBackReply = z.output<typeof readBack>;

export const tryExport = endpoint({
  method: 'POST',
  path: '/projects/:project/export/:format/read-back',
  summary: 'Writes such a file, reads it back by its recipe, and says what does not come back as it went out; nothing is stored',
  params: ofItems,
  body: z.union([partner.extend({ collection: idSchema }), chosen]),
  reply: readBack,
});
