import type { Issue, SourceDocument, SourcePicture } from '@coomb/core';
import { openArchive, type Archive } from '../archive/zip.js';
import { ReadError } from '../read-error.js';
import { pictureTypeOf } from '../rich-text/media-types.js';
import { drawMetafile, isMetafile } from '../rich-text/metafile.js';
import { localName, walkXml } from '../xml/walk-xml.js';
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
    if (!archive.has('word/document.xml'))
      throw new ReadError('not-a-docx', 'The file is an archive, but holds no word-processed document. Choose a .docx file.');
    const styles = archive.has('word/styles.xml') ? await readStyles(await archive.stream('word/styles.xml')) : new Map();
    const numbering = archive.has('word/numbering.xml') ? await readNumbering(await archive.stream('word/numbering.xml')) : undefined;
    const notes = async (part: string): Promise<Map<string, Note>> => (archive.has(part) ? readNotes(await archive.stream(part)) : new Map());
    const body = new BodyReader({
      styles,
      numbering,
      ...(await readTargets(archive)),
      footnotes: await notes('word/footnotes.xml'),
      endnotes: await notes('word/endnotes.xml'),
      comments: await notes('word/comments.xml'),
    });
    await walkXml(await archive.stream('word/document.xml'), body);
    const { pictures, issues } = await readPictures(archive, body.usedPictures);
    return { document: { blocks: body.blocks, pictures }, issues: [...body.issues(), ...issues] };
  } finally {
    archive.close();
  }
}

/** What the document names by relationship id: parts of the file, and web addresses outside it. */
async function readTargets(archive: Archive): Promise<{ targets: Map<string, string>; addresses: Map<string, string> }> {
  const targets = new Map<string, string>();
  const addresses = new Map<string, string>();
  const part = 'word/_rels/document.xml.rels';
  if (!archive.has(part)) return { targets, addresses };
  await walkXml(await archive.stream(part), {
    open(name, { Id = '', Target = '', TargetMode }) {
      if (localName(name) !== 'Relationship') return;
      if (TargetMode !== 'External') targets.set(Id, Target);
      else if (/^(?:https?|mailto):/i.test(Target)) addresses.set(Id, Target);
    },
    close() {},
  });
  return { targets, addresses };
}

async function readPictures(archive: Archive, used: Map<string, string>): Promise<{ pictures: Map<string, SourcePicture>; issues: Issue[] }> {
  const pictures = new Map<string, SourcePicture>();
  const issues: Issue[] = [];
  for (const [target, at] of used) {
    const part = target.startsWith('/') ? target.slice(1) : `word/${target}`;
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
