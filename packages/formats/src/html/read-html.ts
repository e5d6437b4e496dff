import { Parser } from 'htmlparser2';
import { escapeHtml, type Issue, type SourceCell, type SourceDocument } from '@coomb/core';
import { decodeText } from '../csv/read-csv.js';
import { ReadError } from '../read-error.js';
import { plainText, sanitiseRichText } from '../rich-text/sanitise.js';

const SKIPPED = new Set(['script', 'style', 'head', 'nav', 'template', 'noscript', 'svg', 'iframe', 'object', 'form']);
/** Formatting within a line, and the names it is kept by. */
const INLINE = new Map([
  ...['strong', 'em', 'u', 's', 'sub', 'sup', 'code', 'a', 'br'].map((name): [string, string] => [name, name]),
  ['b', 'strong'],
  ['i', 'em'],
  ['strike', 's'],
  ['del', 's'],
]);
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

/** Reads a web page as a document: headings, paragraphs, lists, tables. Scripts, styles and outside pictures are left out. Throws ReadError. */
export function readHtml(bytes: Uint8Array): { document: SourceDocument; issues: Issue[] } {
  if (bytes.length === 0) throw new ReadError('file-empty', 'The file is empty.');
  return readHtmlText(decodeText(bytes));
}

/** The same for a text that is HTML already. */
export function readHtmlText(html: string): { document: SourceDocument; issues: Issue[] } {
  const reader = new HtmlReader();
  const parser = new Parser(
    { onopentag: (name, attributes) => reader.open(name, attributes), onclosetag: (name) => reader.close(name), ontext: (text) => reader.text(text) },
    { decodeEntities: true, lowerCaseTags: true },
  );
  for (let at = 0; at < html.length; at += 1 << 16) parser.write(html.slice(at, at + (1 << 16)));
  parser.end();
  return { document: { blocks: reader.finish(), pictures: new Map() }, issues: reader.issues };
}

interface OpenTable {
  rows: SourceCell[][];
  cell: { html: string; span: number } | undefined;
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
  private pictures = 0;
  private readonly lists: boolean[] = [];
  private item = false;
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
      this.tables.push({ rows: [], cell: undefined });
    } else if (name === 'tr') this.tables.at(-1)?.rows.push([]);
    else if (name === 'td' || name === 'th') {
      const table = this.tables.at(-1);
      if (table) table.cell = { html: '', span: Math.max(1, Math.min(60, Number(attributes.colspan) || 1)) };
    } else if (INLINE.has(name))
      this.put(name === 'br' ? '<br />' : `<${INLINE.get(name)}${name === 'a' && attributes.href ? ` href="${escapeHtml(attributes.href)}"` : ''}>`);
    else if (name === 'img') this.pictures++;
    else if (cell) cell.html += name === 'p' || name === 'li' || name === 'ul' || name === 'ol' ? `<${name}>` : '';
    else if (/^h[1-6]$/.test(name)) {
      this.endParagraph();
      this.level = Number(name[1]);
    } else if (BLOCK.has(name)) {
      this.endParagraph();
      if (name === 'ul' || name === 'ol') this.lists.push(name === 'ol');
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
      table.rows.at(-1)?.push({ text: plainText(html), html, span: table.cell.span });
      table.cell = undefined;
    } else if (INLINE.has(name)) this.put(name === 'br' ? '' : `</${INLINE.get(name)}>`);
    else if (table?.cell) table.cell.html += name === 'p' || name === 'li' || name === 'ul' || name === 'ol' ? `</${name}>` : '';
    else if (/^h[1-6]$/.test(name)) {
      this.endParagraph();
      this.level = 0;
    } else if (BLOCK.has(name)) {
      this.endParagraph();
      if (name === 'ul' || name === 'ol') this.lists.pop();
    }
  }

  text(text: string): void {
    if (this.skipping === 0) this.put(escapeHtml(text));
  }

  finish(): SourceDocument['blocks'] {
    this.endParagraph();
    if (this.pictures > 0)
      this.issues.push({
        severity: 'note',
        code: 'picture-linked',
        at: 'pictures',
        message: `${this.pictures} pictures lie outside the file and were left out`,
      });
    return this.blocks;
  }

  private put(html: string): void {
    const cell = this.tables.at(-1)?.cell;
    if (cell) cell.html += html;
    else this.html += html;
  }

  private endParagraph(): void {
    const html = sanitiseRichText(this.html.replace(/\s+/g, ' ')).trim();
    this.html = '';
    const text = plainText(html);
    if (!text) return;
    const isItem = this.item && this.lists.length > 0;
    this.item = false;
    this.blocks.push({
      type: 'paragraph',
      at: ++this.paragraphs,
      level: this.level,
      ...(isItem && { list: { depth: this.lists.length, ordered: this.lists.at(-1)! } }),
      text,
      html,
    });
  }

  private closeTable(): void {
    const table = this.tables.pop();
    if (!table) return;
    const rows = table.rows.filter((row) => row.length > 0);
    const outer = this.tables.at(-1)?.cell;
    if (outer) outer.html += rows.map((row) => row.map((cell) => cell.html).join(' · ')).join('<br>');
    else if (rows.length > 0) this.blocks.push({ type: 'table', at: ++this.tableCount, rows });
  }
}
