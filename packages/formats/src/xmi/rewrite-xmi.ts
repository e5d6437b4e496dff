import { isArchive, openArchive } from '../archive/zip.js';
import { zipSync } from 'fflate';
import type { ModelEdits } from '../model-out/model-edits.js';
import { rewriteXml } from '../xml/rewrite-xml.js';
import { openXmiFile, type XmiFile } from './xmi-file.js';
import { openModelParts } from './read-xmi.js';
import { buildXmiEdits } from './write-edits.js';

/**
 * Writes the file that a model came in again, with edits: what is not edited stays byte for byte. Of an archive every part that is no model
 * goes out as it came. Throws ReadError.
 */
export async function rewriteXmi(bytes: Uint8Array, edits: ModelEdits): Promise<Buffer> {
  if (!isArchive(bytes)) {
    const file = await openXmiFile('', bytes, true);
    return rewriteXml(bytes, buildXmiEdits([file], edits).get('') ?? new Map());
  }
  const files: XmiFile[] = await openModelParts(bytes, true);
  const written = buildXmiEdits(files, edits);
  const archive = await openArchive(bytes);
  try {
    const parts: Record<string, Uint8Array> = {};
    for (const name of archive.names) {
      if (name.endsWith('/')) continue;
      const own = written.get(name);
      const part = await archive.read(name);
      parts[name] = own ? rewriteXml(part, own) : part;
    }
    return Buffer.from(zipSync(parts));
  } finally {
    archive.close();
  }
}
