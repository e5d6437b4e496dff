import { usualIdentifier } from '@coomb/core';
import { buildDocumentRecipe, isWrittenIn, writeMarkdown } from '@coomb/formats';
import { findStored, replaceStored } from '../stored-files.js';
import type { Writer } from './writer.js';

export const markdownWriter: Writer = {
  id: 'md',
  /** Pictures are written into the text, so that the file is whole by itself. */
  write: async ({ name, kind, items, columns }, shelf) => {
    const files = await shelf.findFiles(findStored(items));
    const written = new Map(
      files.flatMap(({ id, mediaType, bytes }) => (isWrittenIn(mediaType) ? [[id, `data:${mediaType};base64,${Buffer.from(bytes).toString('base64')}`]] : [])),
    );
    const placed = replaceStored(items, (id, attribute) => (attribute === 'src' ? written.get(id) : undefined));
    return { name: `${name}.md`, bytes: Buffer.from(writeMarkdown(placed, columns, kind)) };
  },
  buildRecipe: async ({ name, kind, columns }) => ({ reads: 'document', recipe: buildDocumentRecipe(columns, name, kind, usualIdentifier) }),
};
