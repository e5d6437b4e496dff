import { strToU8, zipSync } from 'fflate';

/** A zip archive of texts, as office programs write them. */
export function zipOf(parts: Record<string, string | Uint8Array>): Uint8Array {
  return zipSync(Object.fromEntries(Object.entries(parts).map(([name, content]) => [name, typeof content === 'string' ? strToU8(content) : content])));
}

const W =
  'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships" xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:wp="http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing" xmlns:mc="http://schemas.openxmlformats.org/markup-compatibility/2006"';

export const usualStyles = `<w:styles ${W}>
<w:style w:type="paragraph" w:styleId="Heading1"><w:name w:val="heading 1"/></w:style>
<w:style w:type="paragraph" w:styleId="berschrift2"><w:name w:val="Überschrift 2"/><w:pPr><w:outlineLvl w:val="1"/></w:pPr></w:style>
<w:style w:type="paragraph" w:styleId="Kapitel"><w:name w:val="Kapitel"/><w:basedOn w:val="Heading1"/></w:style>
<w:style w:type="paragraph" w:styleId="TOC1"><w:name w:val="toc 1"/></w:style>
<w:style w:type="paragraph" w:styleId="Dots"><w:name w:val="List Bullet"/><w:pPr><w:numPr><w:numId w:val="1"/></w:numPr></w:pPr></w:style>
</w:styles>`;

const numbering = `<w:numbering ${W}>
<w:abstractNum w:abstractNumId="0"><w:lvl w:ilvl="0"><w:numFmt w:val="bullet"/></w:lvl></w:abstractNum>
<w:abstractNum w:abstractNumId="1"><w:lvl w:ilvl="0"><w:numFmt w:val="decimal"/></w:lvl><w:lvl w:ilvl="1"><w:numFmt w:val="lowerLetter"/></w:lvl></w:abstractNum>
<w:num w:numId="1"><w:abstractNumId w:val="0"/></w:num><w:num w:numId="2"><w:abstractNumId w:val="1"/></w:num></w:numbering>`;

/** A word-processed document with the given body. */
export function docxOf(body: string, more: Record<string, string | Uint8Array> = {}): Uint8Array {
  return zipOf({
    '[Content_Types].xml': '<Types/>',
    'word/document.xml': `<?xml version="1.0"?><w:document ${W}><w:body>${body}<w:sectPr/></w:body></w:document>`,
    'word/styles.xml': usualStyles,
    'word/numbering.xml': numbering,
    ...more,
  });
}

export const run = (text: string, properties = '') => `<w:r>${properties && `<w:rPr>${properties}</w:rPr>`}<w:t xml:space="preserve">${text}</w:t></w:r>`;
export const paragraph = (content: string, properties = '') => `<w:p>${properties && `<w:pPr>${properties}</w:pPr>`}${content}</w:p>`;
export const style = (id: string) => `<w:pStyle w:val="${id}"/>`;
export const cell = (content: string, properties = '') => `<w:tc><w:tcPr>${properties}</w:tcPr>${content}</w:tc>`;
export const table = (...rows: string[][]) => `<w:tbl>${rows.map((cells) => `<w:tr>${cells.join('')}</w:tr>`).join('')}</w:tbl>`;

/** A workbook whose sheets hold the given row elements. */
export function xlsxOf(sheets: Record<string, string>, more: Record<string, string> = {}): Uint8Array {
  const names = Object.keys(sheets);
  return zipOf({
    'xl/workbook.xml': `<workbook xmlns:r="r"><sheets>${names.map((name, index) => `<sheet name="${name}" sheetId="${index + 1}" r:id="rId${index + 1}"/>`).join('')}</sheets></workbook>`,
    'xl/_rels/workbook.xml.rels': `<Relationships>${names.map((_, index) => `<Relationship Id="rId${index + 1}" Target="worksheets/sheet${index + 1}.xml"/>`).join('')}</Relationships>`,
    ...Object.fromEntries(names.map((name, index) => [`xl/worksheets/sheet${index + 1}.xml`, `<worksheet><sheetData>${sheets[name]}</sheetData></worksheet>`])),
    ...more,
  });
}
