import { z } from 'zod';
import { idSchema, projectParams } from './common.js';
import { endpoint } from './endpoint.js';
import { recipeFile } from './recipes.js';

export const exportFormats = ['xlsx', 'csv', 'md', 'reqif'] as const;
const format = z.enum(exportFormats);
const ofCollection = projectParams.extend({ collection: idSchema, format });
const ofItems = projectParams.extend({ format });
/** Items of any collections; what stands above them comes along. */
const chosen = z.object({ items: z.array(idSchema).min(1, 'Choose items first').max(100_000) });

export const exportCollection = endpoint({
  method: 'GET',
  path: '/projects/:project/collections/:collection/export/:format',
  summary: 'A collection as a workbook, separated values, Markdown or ReqIF; a ReqIF file or archive that came in goes out unchanged but for what changed here',
  params: ofCollection,
  produces: 'application/octet-stream',
  reply: z.string(),
});
export const getExportRecipe = endpoint({
  method: 'GET',
  path: '/projects/:project/collections/:collection/export/:format/recipe',
  summary: 'The recipe that reads such an export back',
  params: ofCollection,
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
