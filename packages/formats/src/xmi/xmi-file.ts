import { inChunks, walkXml } from '../xml/walk-xml.js';
import { type XmiObject, XmiObjects } from './xmi-objects.js';

/** One file of a model, with what its objects are found by. */
export interface XmiFile {
  /** Path within what was handed in; empty where it is one file alone. */
  name: string;
  content: XmiObjects;
  byId: ReadonlyMap<string, XmiObject>;
  /** Objects whose identifier an earlier one has. */
  twins: ReadonlySet<XmiObject>;
}

/** Opens one file; `keepsPlaces` where it is to be written again, and each property must be found in it. */
export async function openXmiFile(name: string, bytes: Uint8Array | AsyncIterable<Uint8Array>, keepsPlaces = false): Promise<XmiFile> {
  const content = new XmiObjects(keepsPlaces);
  await walkXml(bytes instanceof Uint8Array ? inChunks(bytes) : bytes, content);
  const byId = new Map<string, XmiObject>();
  const twins = new Set<XmiObject>();
  let withUuid = 0;
  for (const object of content.objects) {
    const size = byId.size;
    byId.set(object.id, object);
    if (byId.size === size) twins.add(object);
    if (object.uuid && object.uuid !== object.id) withUuid++;
  }
  if (twins.size > 0) {
    // The first keeps the identifier.
    byId.clear();
    twins.clear();
    for (const object of content.objects)
      if (byId.has(object.id)) twins.add(object);
      else byId.set(object.id, object);
  }
  if (withUuid > 0) for (const object of content.objects) if (object.uuid && !byId.has(object.uuid)) byId.set(object.uuid, object);
  return { name, content, byId, twins };
}

/** What a reference leads to: an object, something that has a name of its own elsewhere, or a place in a file that is not at hand. */
export type Target = { object: XmiObject; file: XmiFile } | { known: string } | { missing: string; at: string } | { dangling: string };

/** Follows references within a file and from one to another. */
export class References {
  private readonly files: ReadonlyMap<string, XmiFile>;

  constructor(private readonly all: readonly XmiFile[]) {
    this.files = new Map(all.map((file) => [file.name, file]));
  }

  follow(from: XmiFile, text: string): Target {
    const hash = text.indexOf('#');
    if (hash < 0) {
      const own = from.byId.get(text);
      if (own) return { object: own, file: from };
      for (const file of this.all) {
        const object = file.byId.get(text);
        if (object) return { object, file };
      }
      return { dangling: text };
    }
    const [address, fragment] = [text.slice(0, hash), text.slice(hash + 1)];
    const file = address ? this.findFile(from, address) : from;
    if (file) {
      const object = file.byId.get(fragment) ?? file.byId.get(decode(fragment));
      return object ? { object, file } : { dangling: text };
    }
    // An address of the net or of a tool's own library: what it names is said by its last word.
    if (/^[a-z][a-z0-9+.-]+:/i.test(address)) return { known: lastWord(fragment) || lastWord(address) };
    return { missing: decode(address), at: text };
  }

  private findFile(from: XmiFile, address: string): XmiFile | undefined {
    const path = decode(address).replaceAll('\\', '/');
    const folder = from.name.slice(0, from.name.lastIndexOf('/') + 1);
    const found = this.files.get(normalise(folder + path)) ?? this.files.get(normalise(path));
    if (found) return found;
    const base = path.slice(path.lastIndexOf('/') + 1);
    const named = this.all.filter((file) => file.name.slice(file.name.lastIndexOf('/') + 1) === base);
    return named.length === 1 ? named[0] : undefined;
  }
}

function normalise(path: string): string {
  const parts: string[] = [];
  for (const part of path.split('/'))
    if (part === '..') parts.pop();
    else if (part && part !== '.') parts.push(part);
  return parts.join('/');
}

function decode(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

const lastWord = (text: string) => /([^/#?.]+)(?:\.\w{1,6})?$/.exec(decode(text))?.[1] ?? '';
