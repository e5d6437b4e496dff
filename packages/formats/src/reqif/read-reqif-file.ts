import type { ExchangeDocument, Issue } from '@coomb/core';
import { type Archive, isArchive, openArchive } from '../archive/zip.js';
import { ReadError } from '../read-error.js';
import { mediaTypeOf } from '../rich-text/media-types.js';
import { inChunks } from '../xml/walk-xml.js';
import { readReqif } from './read-reqif.js';

/**
 * Reads a .reqif file, or a .reqifz archive with the pictures and objects that its texts name. Several .reqif files of one archive are read
 * as one exchange: they share types, and relations may lead from one to the other. Throws ReadError.
 */
export async function readReqifFile(bytes: Uint8Array): Promise<{ exchange: ExchangeDocument; issues: Issue[] }> {
  if (!isArchive(bytes)) {
    const { document, issues } = await readReqif(inChunks(bytes));
    return { exchange: document, issues: [...issues, ...missingIssues(document)] };
  }
  const archive = await openArchive(bytes);
  try {
    const names = findReqifParts(archive);
    const parts: { name: string; document: ExchangeDocument; issues: Issue[] }[] = [];
    for (const name of names) {
      const { document, issues } = await readReqif(await archive.stream(name));
      await takeEmbedded(archive, name, document);
      const placed = names.length > 1 ? issues.map((issue) => ({ ...issue, at: `${name}, ${issue.at}` })) : issues;
      parts.push({ name, document, issues: [...placed, ...missingIssues(document)] });
    }
    if (parts.length === 1) return { exchange: parts[0]!.document, issues: parts[0]!.issues };
    const { exchange, issues } = joinParts(parts);
    return { exchange, issues: [...parts.flatMap((part) => part.issues), ...issues] };
  } finally {
    archive.close();
  }
}

/** Hidden files that a computer packs along with its user's: resource forks and their like. They go out again, and are not read. */
function isComputersOwn(name: string): boolean {
  return /(?:^|\/)(?:__MACOSX\/|\._)/.test(name);
}

/** The .reqif parts of an archive, by name. Throws ReadError when there is none. */
export function findReqifParts(archive: Archive): string[] {
  const parts = archive.names.filter((name) => name.toLowerCase().endsWith('.reqif') && !isComputersOwn(name)).toSorted();
  if (parts.length === 0) throw new ReadError('not-reqif', 'The archive holds no .reqif file.');
  return parts;
}

/** Part of an archive that an object's address in a .reqif part means: beside that part or from the top, with / or \, escaped or not. */
export function findEmbeddedPart(names: ReadonlySet<string>, part: string, address: string): string | undefined {
  const folder = part.slice(0, part.lastIndexOf('/') + 1);
  const plain = address.replace(/\\/g, '/').replace(/^(\.\/)+/, '');
  for (const one of new Set([plain, decodeAddress(plain)])) for (const path of [folder + one, one]) if (names.has(path)) return path;
  return undefined;
}

function decodeAddress(address: string): string {
  try {
    return decodeURIComponent(address);
  } catch {
    return address;
  }
}

async function takeEmbedded(archive: Archive, part: string, document: ExchangeDocument): Promise<void> {
  const names = new Set(archive.names);
  for (const [name, type] of document.embedded) {
    const found = findEmbeddedPart(names, part, name);
    if (found !== undefined) document.pictures.set(name, { mediaType: mediaTypeOf(name, type), bytes: await archive.read(found) });
  }
}

function missingIssues(document: ExchangeDocument): Issue[] {
  return [...document.embedded.keys()]
    .filter((name) => !document.pictures.has(name))
    .map((name) => ({
      severity: 'warning',
      code: 'object-outside',
      at: name,
      message: `A text shows ${name}, which is not in the file. Its place is kept, and goes out again`,
    }));
}

function joinParts(parts: readonly { name: string; document: ExchangeDocument }[]): { exchange: ExchangeDocument; issues: Issue[] } {
  const first = parts[0]!.document;
  const types = new Map<string, ExchangeDocument['types'][number]>();
  const relationTypes = new Map<string, ExchangeDocument['relationTypes'][number]>();
  const objects = new Map<string, ExchangeDocument['objects'][number]>();
  const issues: Issue[] = [];
  for (const { name, document } of parts) {
    for (const type of document.types) {
      const known = types.get(type.id);
      types.set(type.id, known ? { ...known, count: known.count + type.count } : type);
    }
    for (const type of document.relationTypes) {
      const known = relationTypes.get(type.id);
      relationTypes.set(type.id, known ? { ...known, count: known.count + type.count } : type);
    }
    for (const object of document.objects) {
      const known = objects.get(object.id);
      if (!known) objects.set(object.id, { ...object, part: name });
      else
        issues.push({
          severity: 'warning',
          code: 'identifier-twice',
          at: `${name}, line ${object.line}`,
          message: `The object ${object.id} stands in ${known.part} already; it is read from there`,
        });
    }
  }
  const all = parts.map((part) => part.document);
  return {
    exchange: {
      title: first.title,
      tool: first.tool,
      types: [...types.values()],
      relationTypes: [...relationTypes.values()],
      objects: [...objects.values()],
      outlines: all.flatMap((document) => document.outlines),
      relations: all.flatMap((document) => document.relations),
      pictures: new Map(all.flatMap((document) => [...document.pictures])),
      embedded: new Map(all.flatMap((document) => [...document.embedded])),
    },
    issues,
  };
}
