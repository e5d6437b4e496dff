import { z } from 'zod';
import { idSchema, projectParams } from './common.js';
import { endpoint } from './endpoint.js';
import { recipeFile } from './recipes.js';

export const exportFormats = ['xlsx', 'csv', 'md', 'reqif'] as const;
const params = projectParams.extend({ collection: idSchema, format: z.enum(exportFormats) });
/** References, parted by commas: only these items, with what stands above them. */
const query = z.object({ items: z.string().max(200_000).optional() });

export const exportCollection = endpoint({
  method: 'GET',
  path: '/projects/:project/collections/:collection/export/:format',
  summary:
    'A collection, or some of its items, as a workbook, separated values, Markdown or ReqIF; a ReqIF file that came in goes out unchanged but for what changed here',
  params,
  query,
  produces: 'application/octet-stream',
  reply: z.string(),
});
export const getExportRecipe = endpoint({
  method: 'GET',
  path: '/projects/:project/collections/:collection/export/:format/recipe',
  summary: 'The recipe that reads such an export back',
  params,
  query,
  reply: recipeFile,
});
