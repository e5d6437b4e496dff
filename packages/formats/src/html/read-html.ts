import { Parser } from 'htmlparser2';
import {
  escapeHtml,
  itemScheme,
  mathTags,
  type Issue,
  type SaidOfBlock,
  type SourceCell,
  type SourceDocument,
  type SourcePicture,
  type SourceTable,
  writeTextTable,
} from '@coomb/core';
import { decodeText } from '../csv/read-csv.js';
import { ReadError } from '../read-error.js';
import { readSaid } from './said.js';
import { pictureScheme, plainText, sanitiseRichText } from '../rich-text/sanitise.js';

const SKIPPED = new Set(['script', 'style', 'head', 'nav', 'template', 'noscript', 'svg', 'iframe', 'object', 'form']);
/** Formatting within a line, and the names it is kept by. */
const INLINE = new Map([
  ...['strong', 'em', 'u', 's', 'sub', 'sup', 'code', 'a', 'br'].map((name): [string, string] => [name, name]),
  ['b', 'strong'],
  ['i', 'em'],
  ['strike', 's'],
  ['del', 's'],
]);
const MATH = new Set(mathTags);
const BLOCK = new Set([
  'p',
  'div',
  'li',
  'dt',
  'dd',
  'blockquote',
  'pre',
  'section',
  'article',
  'main',
  'header',
  'footer',
  'figure',
  'figcaption',
  'body',
  'ul',
  'ol',
  'dl',
  'tr',
]);
const DEEPEST = 500;
const MOST_CELLS = 1_000_000;

/** Whether pictures of a media type may stand in a text as a data address. */
export const isWrittenIn = (mediaType: string): boolean => /^image\/(?:png|jpeg|gif|webp|bmp|svg\+xml)$/.test(mediaType);

/** Reads a web page as a document: headings, paragraphs, lists, tables. Scripts, styles and outside pictures are left out. Throws ReadError. */
export function readHtml(bytes: Uint8Array): { document: SourceDocument; issues: Issue[] } {
  if (bytes.length === 0) throw new ReadError('file-empty', 'The file is empty.');
  return readHtmlText(decodeText(bytes));
}

/** The same for a text that is HTML already. */
export function readHtmlText(html: string): { document: SourceDocument; issues: Issue[] } {
  const reader = new HtmlReader();
  const parser = new Parser(
    {
      onopentag: (name, attributes) => reader.open(name, attributes),
      onclosetag: (name) => reader.close(name),
      ontext: (text) => reader.text(text),
      oncomment: (text) => reader.comment(text),
    },
    { decodeEntities: true, lowerCaseTags: true },
  );
  for (let at = 0; at < html.length; at += 1 << 16) parser.write(html.slice(at, at + (1 << 16)));
  parser.end();
  return { document: { blocks: reader.finish(), pictures: reader.pictures }, issues: reader.issues };
}

interface OpenTable {
  rows: { cell: SourceCell; down: number }[][];
  /** `down` is how many rows the cell takes. */
  cell: { html: string; span: number; down: number; heads: boolean } | undefined;
  /** Tables that stand in its cells. */
  inner: SourceTable[];
}

class HtmlReader {
  readonly issues: Issue[] = [];
  private readonly blocks: SourceDocument['blocks'] = [];
  private html = '';
  private level = 0;
  private skipping = 0;
  private depth = 0;
  private paragraphs = 0;
  private tableCount = 0;
  /** Pictures that the page carries itself. */
  readonly pictures = new Map<string, SourcePicture>();
  private outside = 0;
  /** Listings that are open, in which blanks and line ends count. */
  private preformatted = 0;
  private readonly lists: boolean[] = [];
  private item = false;
  private listBegins = false;
  private quotes = 0;
  private said: SaidOfBlock | undefined;
  private readonly tables: OpenTable[] = [];

  open(name: string, attributes: Record<string, string>): void {
    if (++this.depth > DEEPEST) throw new ReadError('html-deep', `The page nests elements more than ${DEEPEST} deep and was refused.`);
    if (this.skipping > 0 || SKIPPED.has(name)) {
      this.skipping++;
      return;
    }
    const cell = this.tables.at(-1)?.cell;
    if (name === 'table') {
      this.endParagraph();
      this.tables.push({ rows: [], cell: undefined, inner: [] });
    } else if (name === 'tr') this.tables.at(-1)?.rows.push([]);
    else if (name === 'td' || name === 'th') {
      const table = this.tables.at(-1);
      if (table) table.cell = { html: '', span: readSpan(attributes.colspan, 60), down: readSpan(attributes.rowspan, 1000), heads: name === 'th' };
    } else if (INLINE.has(name))
      this.put(
        name === 'br'
          ? '<br />'
          : `<${INLINE.get(name)}${name === 'a' && attributes.href && !attributes.href.startsWith(itemScheme) ? ` href="${escapeHtml(attributes.href)}"` : ''}>`,
      );
    else if (MATH.has(name)) {
      // What a formula may not say of itself goes when the paragraph is cleaned.
      const said = Object.entries(attributes).map(([key, value]) => ` ${key}="${escapeHtml(value)}"`);
      this.put(`<${name}${said.join('')}>`);
    } else if (name === 'img') this.picture(attributes);
    else if (cell) cell.html += name === 'p' || name === 'li' || name === 'ul' || name === 'ol' ? `<${name}>` : '';
    else if (/^h[1-6]$/.test(name)) {
      this.endParagraph();
      this.level = Number(name[1]);
    } else if (BLOCK.has(name)) {
      this.endParagraph();
      if (name === 'pre') {
        this.preformatted++;
        this.wasCode = true;
      }
      if (name === 'blockquote') this.quotes++;
      if (name === 'ul' || name === 'ol') {
        this.lists.push(name === 'ol');
        this.listBegins = true;
      }
      if (name === 'li') this.item = true;
    }
  }

  close(name: string): void {
    this.depth--;
    if (this.skipping > 0) {
      this.skipping--;
      return;
    }
    const table = this.tables.at(-1);
    if (name === 'table') this.closeTable();
    else if ((name === 'td' || name === 'th') && table?.cell) {
      const html = sanitiseRichText(table.cell.html).trim();
      const cell = { text: plainText(html).replace(/\u00a0/g, ' '), html, span: table.cell.span, ...(table.cell.heads && { heads: true }) };
      table.rows.at(-1)?.push({ cell, down: table.cell.down });
      table.cell = undefined;
    } else if (INLINE.has(name)) this.put(name === 'br' ? '' : `</${INLINE.get(name)}>`);
    else if (MATH.has(name)) this.put(`</${name}>`);
    else if (table?.cell) table.cell.html += name === 'p' || name === 'li' || name === 'ul' || name === 'ol' ? `</${name}>` : '';
    else if (/^h[1-6]$/.test(name)) {
      this.endParagraph();
      this.level = 0;
    } else if (BLOCK.has(name)) {
      this.endParagraph();
      if (name === 'pre') {
        this.preformatted--;
        this.wasCode = false;
      }
      if (name === 'blockquote') this.quotes--;
      if (name === 'ul' || name === 'ol') this.lists.pop();
      if (name === 'blockquote' || name === 'ul' || name === 'ol') this.leave();
    }
  }

  text(text: string): void {
    if (this.skipping > 0) return;
    if (this.preformatted > 0) this.put(keepLines(text));
    else this.put(escapeHtml(text.replace(/\s+/g, ' ')));
  }

  /** What our own exports say of the block that follows, or of the heading it stands in. */
  comment(text: string): void {
    const said = readSaid(text);
    if (said) this.said = { ...this.said, ...said };
  }

  finish(): SourceDocument['blocks'] {
    this.endParagraph();
    if (this.outside > 0)
      this.issues.push({
        severity: 'note',
        code: 'picture-linked',
        at: 'pictures',
        message: `${this.outside} pictures lie outside the file and were left out`,
      });
    return this.blocks;
  }

  /** A picture that is written into the page is kept; one that lies elsewhere is not fetched. */
  private picture({ src = '', alt = '' }: Record<string, string>): void {
    const [, mediaType, base64] = /^data:(image\/[a-z+]+);base64,([A-Za-z0-9+/=\s]+)$/.exec(src) ?? [];
    if (!mediaType || !isWrittenIn(mediaType)) {
      this.outside++;
      return;
    }
    const name = `picture-${this.pictures.size + 1}.${mediaType.slice(6).replace('+xml', '')}`;
    this.pictures.set(name, { mediaType, bytes: Buffer.from(base64!, 'base64') });
    this.put(`<img src="${pictureScheme}${name}" alt="${escapeHtml(alt)}" />`);
  }

  private put(html: string): void {
    const cell = this.tables.at(-1)?.cell;
    if (cell) cell.html += html;
    else this.html += html;
  }

  /** What was put down since belongs to a sample of code. */
  private wasCode = false;

  private endParagraph(): void {
    const html = sanitiseRichText(this.html.replace(/ {2,}/g, ' ').replace(/<br \/> /g, '<br />')).replace(/^(?: |<br \/>)+|(?: |<br \/>)+$/g, '');
    this.html = '';
    const text = plainText(html).replace(/\u00a0/g, ' ');
    if (!text && !/<(?:img|math)/.test(html)) return;
    const isItem = this.item && this.lists.length > 0;
    this.item = false;
    const begins = isItem && this.listBegins;
    if (isItem) this.listBegins = false;
    this.blocks.push({
      type: 'paragraph',
      at: ++this.paragraphs,
      level: this.level,
      ...(isItem && { list: { depth: this.lists.length, ordered: this.lists.at(-1)!, ...(begins && { begins }) } }),
      text,
      html,
      ...(this.quotes > 0 && { quoted: true }),
      ...(this.wasCode && { aside: 'code' as const }),
      ...this.takeSaid(),
    });
  }

  /** What is said of a list or a quotation holds for all of it. */
  private takeSaid(): { said?: SaidOfBlock } {
    const { said } = this;
    if (this.lists.length === 0 && this.quotes === 0) this.said = undefined;
    return said ? { said } : {};
  }

  private leave(): void {
    if (this.lists.length === 0 && this.quotes === 0) this.said = undefined;
  }

  /** A table in a cell is part of that cell's text, and a block of its own after the table that it stands in. */
  private closeTable(): void {
    const table = this.tables.pop();
    if (!table) return;
    const rows = spreadRows(table.rows.filter((row) => row.length > 0));
    const outer = this.tables.at(-1);
    if (outer?.cell) {
      outer.cell.html += writeTextTable(rows);
      outer.inner.push(...(rows.length > 0 ? [{ type: 'table', at: 0, rows } as const] : []), ...table.inner);
    } else if (rows.length > 0) {
      const at = ++this.tableCount;
      this.blocks.push({ type: 'table', at, rows, ...this.takeSaid() });
      for (const inner of table.inner) this.blocks.push({ ...inner, at: ++this.tableCount, inside: at });
    }
  }
}

function readSpan(value: string | undefined, most: number): number {
  return Math.max(1, Math.min(most, Math.floor(Number(value)) || 1));
}

/** Cells that take several rows stand in each of them, as continued. */
function spreadRows(rows: OpenTable['rows']): SourceCell[][] {
  let count = 0;
  /** By the column they begin in: cells from above, and how many rows they still take. */
  let open = new Map<number, { cell: SourceCell; left: number }>();
  return rows.map((row) => {
    const spread: SourceCell[] = [];
    const still: typeof open = new Map();
    let column = 0;
    const put = (cell: SourceCell, left: number) => {
      if (++count > MOST_CELLS)
        throw new ReadError(
          'table-too-large',
          `A table holds more than ${MOST_CELLS.toLocaleString('en-GB')} cells, those counted in each row that go over several; the file was refused.`,
        );
      spread.push(cell);
      if (left > 0) still.set(column, { cell, left });
      column += cell.span;
    };
    const putOpen = () => {
      for (let above = open.get(column); above; above = open.get(column)) put({ ...above.cell, continued: true }, above.left - 1);
    };
    for (const { cell, down } of row) {
      putOpen();
      put(cell, down - 1);
    }
    putOpen();
    open = still;
    return spread;
  });
}

/** Words of a listing: line ends stay, and so do the blanks that indent. */
function keepLines(text: string): string {
  return escapeHtml(text.replace(/\t/g, '    '))
    .replace(/\r?\n/g, '<br />')
    .replace(/ {2,}|(?<=<br \/>) /g, (blanks) => '\u00a0'.repeat(blanks.length));
}
