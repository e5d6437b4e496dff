import { localName, walkXml } from '../xml/walk-xml.js';
import type { Archive } from './zip.js';

/** What a part of an office document is related to. */
export interface Relation {
  id: string;
  /** Address of the kind of relationship; its last word says what it is, in both editions of the standard. */
  type: string;
  /** Name of a part of the file, or an address outside it. */
  target: string;
  external: boolean;
}

/** The part that a package says is its document (ECMA-376 part 2, 9.3): mostly, but not always, the usual one. Undefined where there is none. */
export async function findMainPart(archive: Archive, usual: string): Promise<string | undefined> {
  const folder = usual.slice(0, usual.indexOf('/'));
  const ending = usual.slice(usual.lastIndexOf('/') + 1);
  const named = (await readRelations(archive, '')).find((one) => one.type.endsWith('/officeDocument') && archive.has(one.target))?.target;
  // A package of another sort says its own kind of document.
  const isOther = ['word', 'xl', 'ppt'].some((one) => one !== folder && named?.startsWith(`${one}/`) && !named.endsWith(ending));
  if (named && !isOther) return named;
  return archive.has(usual) ? usual : undefined;
}

/** A part that a main part is related to, by the last word of the relationship's type; else the usual file beside it. */
export function findRelatedPart(archive: Archive, main: string, relations: readonly Relation[], type: string): string | undefined {
  const named = relations.find((one) => one.type.endsWith(`/${type}`) && !one.external && archive.has(one.target))?.target;
  const usual = `${main.slice(0, main.lastIndexOf('/') + 1)}${type}.xml`;
  return named ?? (archive.has(usual) ? usual : undefined);
}

/** Relationships of a part, or of the package itself. Targets are names of parts from the top of the archive. */
export async function readRelations(archive: Archive, part: string): Promise<Relation[]> {
  const folder = part.slice(0, part.lastIndexOf('/') + 1);
  const file = `${folder}_rels/${part.slice(folder.length)}.rels`;
  const found: Relation[] = [];
  if (!archive.has(file)) return found;
  await walkXml(await archive.stream(file), {
    open(name, { Id = '', Type = '', Target = '', TargetMode }) {
      if (localName(name) !== 'Relationship') return;
      const external = TargetMode === 'External';
      found.push({ id: Id, type: Type, target: external ? Target : resolvePart(folder, Target), external });
    },
    close() {},
  });
  return found;
}

/** A target seen from a folder: from the top where it begins with a slash, else beside; `..` leads up. */
function resolvePart(folder: string, target: string): string {
  const parts: string[] = [];
  for (const one of `${target.startsWith('/') ? '' : folder}${target}`.split('/')) {
    if (one === '..') parts.pop();
    else if (one !== '' && one !== '.') parts.push(one);
  }
  return parts.join('/');
}
