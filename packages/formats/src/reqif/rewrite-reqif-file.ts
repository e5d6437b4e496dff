import type { ExchangeDocument, SourcePicture } from '@coomb/core';
import { zipSync } from 'fflate';
import { isArchive, openArchive } from '../archive/zip.js';
import { inChunks } from '../xml/walk-xml.js';
import { readReqif } from './read-reqif.js';
import { findEmbeddedPart, findReqifParts } from './read-reqif-file.js';
import { learnDefinitions, type ReqifEdits, rewriteReqif } from './rewrite-reqif.js';

/**
 * Writes a .reqif file or a .reqifz archive again with edits. Every other part of an archive goes out byte for byte. `pictures` are those
 * that the edited texts name, by the name they have there; what the archive lacks is added, which makes an archive of a plain file.
 * Throws ReadError.
 */
export async function rewriteReqifFile(
  bytes: Uint8Array,
  edits: ReqifEdits,
  pictures: ReadonlyMap<string, SourcePicture> = new Map(),
  name = 'exchange.reqif',
): Promise<{ bytes: Buffer; extension: 'reqif' | 'reqifz' }> {
  if (!isArchive(bytes)) {
    const text = await rewriteWhole(() => inChunks(bytes), edits);
    if (pictures.size === 0) return { bytes: text, extension: 'reqif' };
    return { bytes: pack(new Map([[name, text], ...[...pictures].map(([path, { bytes: picture }]) => [path, picture] as const)])), extension: 'reqifz' };
  }
  const archive = await openArchive(bytes);
  try {
    const parts = new Map<string, Uint8Array>();
    const reqifParts = findReqifParts(archive);
    for (const one of archive.names) if (!one.endsWith('/') && !reqifParts.includes(one)) parts.set(one, await archive.read(one));
    const given = new Set<string>();
    for (const part of reqifParts) {
      const own = reqifParts.length > 1 ? chooseEdits((await readReqif(await archive.stream(part))).document, edits, given) : edits;
      parts.set(part, await rewriteWhole(() => archive.stream(part), own));
    }
    const names = new Set(archive.names);
    const folder = reqifParts[0]!.slice(0, reqifParts[0]!.lastIndexOf('/') + 1);
    for (const [path, picture] of pictures) if (findEmbeddedPart(names, reqifParts[0]!, path) === undefined) parts.set(folder + path, picture.bytes);
    return { bytes: pack(parts), extension: 'reqifz' };
  } finally {
    archive.close();
  }
}

/** What of the edits is a part's own. What is new goes to the first part that has its type; `given` remembers what went. */
function chooseEdits(document: ExchangeDocument, edits: ReqifEdits, given: Set<string>): ReqifEdits {
  const take = <One extends { id: string; type: string }>(list: readonly One[], types: readonly { id: string }[]) => {
    const here = new Set(types.map((type) => type.id));
    const own = list.filter((one) => !given.has(one.id) && here.has(one.type));
    for (const one of own) given.add(one.id);
    return own;
  };
  return { ...edits, added: take(edits.added, document.types), addedRelations: take(edits.addedRelations, document.relationTypes) };
}

/** The definitions are looked for first when choices are written: parts of a file may stand in any order. */
async function rewriteWhole(open: () => Chunks | Promise<Chunks>, edits: ReqifEdits): Promise<Buffer> {
  const written = [...edits.values.values(), ...edits.added.map((one) => one.values)];
  const definitions = written.length > 0 ? await learnDefinitions(await open()) : undefined;
  const parts: Buffer[] = [];
  for await (const part of rewriteReqif(await open(), edits, definitions)) parts.push(part);
  return Buffer.concat(parts);
}

type Chunks = Iterable<Uint8Array> | AsyncIterable<Uint8Array>;

/** Pictures are packed already: only the text is worth deflating. */
function pack(parts: ReadonlyMap<string, Uint8Array>): Buffer {
  return Buffer.from(zipSync(Object.fromEntries([...parts].map(([name, bytes]) => [name, [bytes, { level: /\.reqif$/i.test(name) ? 6 : 0 }] as const]))));
}
