import { usualIdentifier } from '@coomb/core';
import { buildColumns, buildDocumentRecipe, cellText, isWrittenIn, writeMarkdown } from '@coomb/formats';
import { replaceStored } from '../stored-files.js';
import { inPieces, type Writer } from './writer.js';

export const markdownWriter: Writer = {
  id: 'md',
  /** Pictures are written into the text, so that the file is whole by itself. */
  write: ({ scheme, name, kind, items }, { files }) => {
    const written = new Map(
      files.flatMap(({ id, mediaType, bytes }) => (isWrittenIn(mediaType) ? [[id, `data:${mediaType};base64,${Buffer.from(bytes).toString('base64')}`]] : [])),
    );
    const placed = replaceStored(items, (id, attribute) => (attribute === 'src' ? written.get(id) : undefined));
    return { name: `${name}.md`, pieces: inPieces(writeMarkdown(placed, buildColumns(scheme, items, cellText), kind)) };
  },
  buildRecipe: ({ scheme, name, kind, items }) => ({
    reads: 'document',
    recipe: buildDocumentRecipe(buildColumns(scheme, items, cellText), name, kind, usualIdentifier),
  }),
};
