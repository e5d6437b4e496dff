import { setTimeout as delay } from 'node:timers/promises';
import type { PDFPageProxy } from 'pdfjs-dist';
import { escapeHtml, type Issue, type SourceDocument, type SourceParagraph } from '@coomb/core';
import { readSigns } from '../rich-text/symbols.js';
import { ReadError } from '../read-error.js';
import { checkStreams } from './check-streams.js';
import { findRunningLines, joinParagraphs, type PdfLine } from './pdf-lines.js';

const MOST_PAGES = 3000;
/** Pieces of text on one page: a full page of small print has a few thousand. */
const MOST_ON_PAGE = 20_000;
/** Bytes of the file for a piece of text, at least: pages may draw the same content over and over. */
const LEAST_BYTES = 8;
/** How long the reader may take to put everything away, in milliseconds. */
const DESTROYING = 200;
/** Share of the size of its line below which a raised or lowered piece is an index. */
const SMALLER = 0.9;
/** A gap between pieces, in sizes of the text, as columns have it. */
const COLUMN_GAP = 2;

/**
 * Reads the text of a PDF as a document: headings by size, paragraphs by the gaps between lines, page numbers and running heads dropped.
 * Every paragraph knows its page. Throws ReadError for what is no PDF, is protected, or holds pictures of text only.
 */
export async function readPdf(bytes: Uint8Array): Promise<{ document: SourceDocument; issues: Issue[] }> {
  if (Buffer.from(bytes.subarray(0, 1024)).indexOf('%PDF-') < 0) throw new ReadError('not-a-pdf', 'The file is not a PDF: it does not begin as one.');
  await checkStreams(bytes);
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const loading = getDocument({ data: new Uint8Array(bytes), useSystemFonts: false, isEvalSupported: false, disableFontFace: true, verbosity: 0 });
  try {
    const pdf = await loading.promise;
    if (pdf.numPages > MOST_PAGES) throw new ReadError('pdf-long', `The PDF has ${pdf.numPages} pages; Coomb reads up to ${MOST_PAGES}.`);
    const pages: PdfLine[][] = [];
    let left = MOST_ON_PAGE + bytes.length / LEAST_BYTES;
    for (let number = 1; number <= pdf.numPages; number++) {
      const page = await pdf.getPage(number);
      const items = await readPieces(page, Math.min(MOST_ON_PAGE, left));
      left -= items.length;
      const height = page.getViewport({ scale: 1 }).height;
      pages.push(toLines(items, number, height));
      page.cleanup();
    }
    return toDocument(pages);
  } catch (error) {
    if (error instanceof ReadError) throw error;
    const name = error instanceof Error ? error.name : '';
    if (name === 'PasswordException')
      throw new ReadError('file-encrypted', 'The PDF is protected by a password. Save it without one and try again.', { cause: error });
    throw new ReadError('pdf-broken', 'The PDF is damaged: it cannot be read to the end. Save or download it again.', { cause: error });
  } finally {
    // A page that was given up in the middle never answers.
    await Promise.race([loading.destroy(), delay(DESTROYING)]);
  }
}

interface TextItem {
  str: string;
  transform: number[];
  width: number;
  height: number;
  hasEOL: boolean;
}

/** Texts of a page; given up as soon as there are more than may be. */
async function readPieces(page: PDFPageProxy, most: number): Promise<TextItem[]> {
  const reader = page.streamTextContent().getReader() as ReadableStreamDefaultReader<{ items: TextItem[] }>;
  const items: TextItem[] = [];
  for (let next = await reader.read(); !next.done; next = await reader.read()) {
    for (const item of next.value.items) items.push(item);
    if (items.length <= most) continue;
    // Neither the page nor the file answers after that: nobody waits for them.
    void reader.cancel().catch(() => undefined);
    throw new ReadError(
      'pdf-dense',
      `Page ${page.pageNumber} of the PDF holds more pieces of text than ${most < MOST_ON_PAGE ? 'a file of its size can' : 'any page does'}; the file was refused.`,
    );
  }
  return items;
}

/** Pieces of text on (nearly) the same height make a line, from the top down. */
function toLines(items: readonly TextItem[], page: number, pageHeight: number): PdfLine[] {
  const lines: PdfLine[] = [];
  for (const piece of items) {
    if (!piece.str?.trim()) continue;
    const item = { ...piece, str: readSigns(piece.str, '') };
    const [x, y] = [item.transform[4]!, item.transform[5]!];
    const size = Math.hypot(item.transform[2]!, item.transform[3]!) || item.height;
    const last = lines.at(-1);
    const end = x + item.width;
    if (last && Math.abs(last.y - y) < Math.max(last.size, size) * 0.5 && x >= last.end - size) {
      const blank = x - last.end > size * 0.2 && !last.text.endsWith(' ') ? ' ' : '';
      last.text += blank + item.str;
      last.html += blank + markIndex(escapeHtml(item.str), size < last.size * SMALLER ? y - last.y : 0);
      last.gaps ||= x - last.end > size * COLUMN_GAP;
      last.end = end;
      if (size > last.size) [last.y, last.size] = [y, size];
    } else lines.push({ page, x, y, size, text: item.str, html: escapeHtml(item.str), end, gaps: false, fromTop: pageHeight - y, pageHeight });
  }
  return lines.map((line) => ({ ...line, text: line.text.replace(/\s+/g, ' ').trim(), html: line.html.replace(/\s+/g, ' ').trim() }));
}

function markIndex(html: string, rise: number): string {
  if (rise > 0.5) return `<sup>${html}</sup>`;
  return rise < -0.5 ? `<sub>${html}</sub>` : html;
}

/** Lines after one another with gaps as between columns: what is drawn as a table has none in a PDF. */
function findTables(lines: readonly PdfLine[]): number[] {
  const pages = new Set<number>();
  lines.forEach((line, at) => {
    if (line.gaps && lines[at + 1]?.gaps && lines[at + 1]!.page === line.page) pages.add(line.page);
  });
  return [...pages];
}

function toDocument(pages: PdfLine[][]): { document: SourceDocument; issues: Issue[] } {
  const issues: Issue[] = [];
  const running = findRunningLines(pages);
  const lines = pages.flat().filter((line) => !running.has(line));
  if (running.size > 0)
    issues.push({ severity: 'note', code: 'pdf-running', at: 'all pages', message: `${running.size} page numbers and running heads were left out` });
  const empty = pages.flatMap((page, index) => (page.length === 0 ? [index + 1] : []));
  if (lines.length === 0) throw new ReadError('pdf-no-text', 'The PDF holds no text, only pictures. Have it read by a text recognition first.');
  if (empty.length > 0)
    issues.push({
      severity: 'warning',
      code: 'pdf-page-empty',
      at: `page ${empty[0]}`,
      message: `${empty.length} ${empty.length === 1 ? 'page holds' : 'pages hold'} no text (${empty.slice(0, 8).join(', ')})`,
    });
  const tables = findTables(lines);
  if (tables.length > 0)
    issues.push({
      severity: 'warning',
      code: 'pdf-table',
      at: `page ${tables[0]}`,
      message: `${tables.length} ${tables.length === 1 ? 'page seems' : 'pages seem'} to hold tables (${tables.slice(0, 8).join(', ')}${tables.length > 8 ? ' …' : ''}); a PDF tells no rows and columns, so their words were read line by line`,
    });
  const blocks = joinParagraphs(lines).map(
    ({ page, level, text, html, list }, index): SourceParagraph => ({
      type: 'paragraph',
      at: index + 1,
      page,
      level,
      ...(list && { list: { depth: 1, ordered: false } }),
      text,
      html,
    }),
  );
  return { document: { blocks, pictures: new Map() }, issues };
}
