import type { Issue, SourceDocument, SourcePicture } from '@coomb/core';
import { findMainPart, findRelatedPart, readRelations } from '../archive/office-parts.js';
import { openArchive, type Archive } from '../archive/zip.js';
import { ReadError } from '../read-error.js';
import { pictureTypeOf } from '../rich-text/media-types.js';
import { drawMetafile, isMetafile } from '../rich-text/metafile.js';
import { walkXml } from '../xml/walk-xml.js';
import { BodyReader } from './body-reader.js';
import { type Note, readNotes } from './notes.js';
import { readNumbering } from './numbering.js';
import { readStyles } from './styles.js';

export interface DocxReading {
  document: SourceDocument;
  issues: Issue[];
}

/**
 * Reads an Office Open XML text document (ECMA-376): headings, paragraphs, lists, tables and pictures in reading order.
 * Tracked changes are kept in both versions, footnotes and comments with the paragraph that names them. Throws ReadError when the file is no such document.
 */
export async function readDocx(bytes: Uint8Array): Promise<DocxReading> {
  const archive = await openArchive(bytes);
  try {
    const main = await findMainPart(archive, 'word/document.xml');
    if (!main) throw new ReadError('not-a-docx', 'The file is an archive, but holds no word-processed document. Choose a .docx file.');
    const relations = await readRelations(archive, main);
    const folder = main.slice(0, main.lastIndexOf('/') + 1);
    const partOf = (type: string) => findRelatedPart(archive, main, relations, type);
    const [stylesPart, numberingPart] = [partOf('styles'), partOf('numbering')];
    const styles = stylesPart ? await readStyles(await archive.stream(stylesPart)) : new Map();
    const numbering = numberingPart ? await readNumbering(await archive.stream(numberingPart)) : undefined;
    const notes = async (part: string | undefined): Promise<Map<string, Note>> => (part ? readNotes(await archive.stream(part)) : new Map());
    const body = new BodyReader({
      styles,
      numbering,
      targets: new Map(
        relations.filter((one) => !one.external).map((one) => [one.id, one.target.startsWith(folder) ? one.target.slice(folder.length) : `/${one.target}`]),
      ),
      addresses: new Map(relations.filter((one) => one.external && /^(?:https?|mailto):/i.test(one.target)).map((one) => [one.id, one.target])),
      footnotes: await notes(partOf('footnotes')),
      endnotes: await notes(partOf('endnotes')),
      comments: await notes(partOf('comments')),
    });
    await walkXml(await archive.stream(main), body);
    const { pictures, issues } = await readPictures(archive, folder, body.usedPictures);
    return { document: { blocks: body.blocks, pictures }, issues: [...body.issues(), ...issues] };
  } finally {
    archive.close();
  }
}

async function readPictures(archive: Archive, folder: string, used: Map<string, string>): Promise<{ pictures: Map<string, SourcePicture>; issues: Issue[] }> {
  const pictures = new Map<string, SourcePicture>();
  const issues: Issue[] = [];
  for (const [target, at] of used) {
    const part = target.startsWith('/') ? target.slice(1) : `${folder}${target}`;
    const mediaType = pictureTypeOf(part);
    if (!archive.has(part)) {
      issues.push({ severity: 'warning', code: 'picture-missing', at, message: `The picture "${target}" is not in the file` });
      continue;
    }
    const bytes = mediaType ? await archive.read(part) : isMetafile(part) ? await drawMetafile(await archive.read(part)) : undefined;
    if (bytes) pictures.set(target, { mediaType: mediaType ?? 'image/svg+xml', bytes });
    else
      issues.push({
        severity: 'warning',
        code: 'picture-type',
        at,
        message: `The picture "${target}" is of a kind that browsers do not show; it stays in the stored file`,
      });
  }
  return { pictures, issues };
}
