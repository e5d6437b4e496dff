import type { ExchangeRecipe } from '@coomb/core';
import { buildReqifEdits, buildReqifSkeleton, embeddedScheme, pictureScheme, readReqifFile, rewriteReqifFile } from '@coomb/formats';
import { replaceStored } from '../stored-files.js';
import type { Writer } from './writer.js';

/** Drawings that were made of another kind keep the name of that one. */
function endingOf({ name, mediaType }: { name: string; mediaType: string }): string {
  return mediaType === 'image/svg+xml' ? '.svg' : (/\.\w+$/.exec(name)?.[0] ?? '');
}

/** The partner's own file with what changed here since; a file of our own where the items came from elsewhere, or are a choice of them. */
export const reqifWriter: Writer = {
  id: 'reqif',
  write: async ({ scheme, name, items }, shelf) => {
    const { partner, files } = shelf;
    const now = shelf.now.toISOString().replace(/\.\d+Z$/, 'Z');
    const own = partner?.recipe ? undefined : buildReqifSkeleton(scheme, items, name, now);
    const bytes = partner?.recipe ? Buffer.from(partner.bytes) : Buffer.from(own!.xml);
    const { exchange } = await readReqifFile(bytes);
    // Texts name stored pictures as the partner's file does; those that it does not know get a name of their own, and go along.
    const names = new Map(files.map((file) => [file.id, partner?.pictures.get(file.id) ?? `objects/${file.id}${endingOf(file)}`]));
    const placed = replaceStored(items, (id, attribute) => {
      const known = names.get(id)?.replace(/&/g, '&amp;');
      return known === undefined ? undefined : (attribute === 'src' ? pictureScheme : embeddedScheme) + known;
    });
    const edits = buildReqifEdits(scheme, (partner?.recipe as ExchangeRecipe | null | undefined) ?? own!.recipe, exchange, placed, now);
    const pictures = new Map(files.map(({ id, mediaType, bytes: content }) => [names.get(id)!, { mediaType, bytes: content }]));
    const written = await rewriteReqifFile(bytes, edits, pictures, `${name}.reqif`);
    return { name: `${name}.${written.extension}`, pieces: [written.bytes] };
  },
  buildRecipe: ({ scheme, items, name }, { partner }) => ({
    reads: 'exchange',
    recipe: (partner?.recipe as ExchangeRecipe | null | undefined) ?? buildReqifSkeleton(scheme, items, name, '').recipe,
  }),
};
