import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';

const PART = 'word/document.xml';
const FIELD = /<w:r>(<w:fldChar w:fldCharType="begin"[^>]*\/>)(<w:instrText[^>]*>TOC[^<]*<\/w:instrText>)(<w:fldChar w:fldCharType="separate"\/>)<\/w:r>/;

/**
 * Office programs know a table of contents by its field standing in runs of its own (ECMA-376 part 1, 17.16.18) inside a block that says so.
 * The writer puts begin, instruction and separator into one run, which some programs then show as text.
 */
export function mendContents(document: Uint8Array): Buffer {
  const parts = unzipSync(document);
  const xml = strFromU8(parts[PART]!)
    .replace(FIELD, '<w:r>$1</w:r><w:r>$2</w:r><w:r>$3</w:r>')
    .replace(
      '<w:sdtPr><w:alias w:val="Contents"/></w:sdtPr>',
      '<w:sdtPr><w:alias w:val="Contents"/><w:docPartObj><w:docPartGallery w:val="Table of Contents"/><w:docPartUnique/></w:docPartObj></w:sdtPr>',
    );
  return Buffer.from(zipSync({ ...parts, [PART]: strToU8(xml) }));
}
