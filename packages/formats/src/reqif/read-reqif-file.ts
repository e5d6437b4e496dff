import type { ExchangeDocument, Issue } from '@coomb/core';
import { openArchive, type Archive } from '../archive/zip.js';
import { ReadError } from '../read-error.js';
import { inChunks } from '../xml/walk-xml.js';
import { readReqif } from './read-reqif.js';

const MEDIA_TYPES: Record<string, string> = { png: 'image/png', jpg: 'image/jpeg', jpeg: 'image/jpeg', gif: 'image/gif', webp: 'image/webp', bmp: 'image/bmp' };

/** Reads a .reqif file, or a .reqifz archive with its pictures. Throws ReadError. */
export async function readReqifFile(bytes: Uint8Array): Promise<{ exchange: ExchangeDocument; issues: Issue[] }> {
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) {
    const { document, issues } = await readReqif(inChunks(bytes));
    return { exchange: document, issues };
  }
  const archive = await openArchive(bytes);
  try {
    const part = findReqifPart(archive);
    const { document, issues } = await readReqif(await archive.stream(part));
    const folder = part.includes('/') ? part.slice(0, part.lastIndexOf('/') + 1) : '';
    for (const name of archive.names) {
      const mediaType = MEDIA_TYPES[name.slice(name.lastIndexOf('.') + 1).toLowerCase()];
      if (mediaType) document.pictures.set(name.startsWith(folder) ? name.slice(folder.length) : name, { mediaType, bytes: await archive.read(name) });
    }
    return { exchange: document, issues };
  } finally {
    archive.close();
  }
}

/** The one ReqIF part of an archive. Throws ReadError when there is none, or several. */
export function findReqifPart(archive: Archive): string {
  const parts = archive.names.filter((name) => name.toLowerCase().endsWith('.reqif'));
  if (parts.length === 0) throw new ReadError('not-reqif', 'The archive holds no .reqif file.');
  if (parts.length > 1)
    throw new ReadError(
      'reqif-several',
      `The archive holds ${parts.length} .reqif files (${parts.slice(0, 4).join(', ')}). Unpack it and hand them in one by one.`,
    );
  return parts[0]!;
}
