import { readDocument } from '../recipe/apply-document-recipe.js';
import type { DocumentRecipe } from '../recipe/document-recipe.js';
import { proposeDocumentRecipe } from '../recipe/propose-document-recipe.js';
import type { SourceDocument } from '../source/document.js';
import type { ContentType } from './content-type.js';

/** Running text with headings, lists and tables. */
export const document: ContentType<'document', { document: SourceDocument }, DocumentRecipe> = {
  type: 'document',
  reads: 'document',
  propose: (scheme, content, kind) => proposeDocumentRecipe(scheme, content.document, kind),
  read: (scheme, recipe, content) => readDocument(scheme, recipe, content.document),
  show: (_, { document: { blocks } }) => ({ blocks }),
  align: (_, recipe) => recipe,
  inherit: (_, recipe, __, isSameFormat) => (isSameFormat ? recipe : undefined),
  owns: (recipe) => 'headings' in recipe,
  pictures: (content) => content.document.pictures,
};
