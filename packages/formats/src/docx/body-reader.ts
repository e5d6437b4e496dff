import { escapeHtml, type Issue, type SourceBlock, type SourceCell } from '@coomb/core';
import { pictureScheme } from '../rich-text/sanitise.js';
import { localName, type XmlVisitor } from '../xml/walk-xml.js';
import { findLevel, type ParagraphStyle } from './styles.js';

export interface BodyContext {
  styles: Map<string, ParagraphStyle>;
  isCounted: (numId: string, level: number) => boolean;
  targets: Map<string, string>;
}

interface OpenParagraph {
  text: string;
  html: string;
  style: string;
  outline: number | undefined;
  numId: string | undefined;
  level: number;
}

interface OpenTable {
  rows: SourceCell[][];
  cell: { paragraphs: string[]; texts: string[]; span: number; continued: boolean } | undefined;
  /** Columns a row starts after (gridBefore). */
  indent: number;
}

const MARKS: Record<string, string> = { b: 'strong', i: 'em', u: 'u', strike: 's' };
const SKIPPED = new Set(['del', 'moveFrom', 'Fallback', 'instrText', 'delText', 'sectPr', 'pPrChange', 'rPrChange', 'tblPrChange', 'tcPrChange']);

/** Turns the events of `word/document.xml` into blocks. Nested tables become text of the cell they stand in. */
export class BodyReader implements XmlVisitor {
  readonly blocks: SourceBlock[] = [];
  /** Picture targets with the place of their first use. */
  readonly usedPictures = new Map<string, string>();
  private readonly context: BodyContext;
  private readonly paragraphs: OpenParagraph[] = [];
  private readonly tables: OpenTable[] = [];
  private readonly oddities = new Map<string, { at: string; message: string; count: number }>();
  private marks: Set<string> = new Set();
  private skipping = 0;
  private inRunProperties = false;
  private inText = false;
  private alt = '';
  private paragraphCount = 0;
  private tableCount = 0;

  constructor(context: BodyContext) {
    this.context = context;
  }

  issues(): Issue[] {
    return [...this.oddities].map(([code, { at, message, count }]) => ({
      severity: 'note',
      code,
      at,
      message: count > 1 ? `${message} (${count} times, first here)` : message,
    }));
  }

  open(name: string, attributes: Record<string, string>): void {
    const local = localName(name);
    if (this.skipping > 0 || SKIPPED.has(local)) {
      if (this.skipping === 0 && (local === 'del' || local === 'moveFrom')) this.odd('tracked-deletion', 'Text marked as deleted was left out');
      this.skipping++;
      return;
    }
    const value = attributes['w:val'] ?? '';
    const paragraph = this.paragraphs.at(-1);
    switch (local) {
      case 'p':
        if (name === 'w:p') this.paragraphs.push({ text: '', html: '', style: '', outline: undefined, numId: undefined, level: 0 });
        return;
      case 'tbl':
        this.tables.push({ rows: [], cell: undefined, indent: 0 });
        return;
      case 'tr':
        this.tables.at(-1)?.rows.push([]);
        return;
      case 'tc':
        if (this.tables.length) this.tables.at(-1)!.cell = { paragraphs: [], texts: [], span: 1, continued: false };
        return;
      case 'gridSpan':
        if (this.tables.at(-1)?.cell) this.tables.at(-1)!.cell!.span = Math.max(1, Math.min(60, Number(value) || 1));
        return;
      case 'vMerge':
        if (this.tables.at(-1)?.cell && value !== 'restart') this.tables.at(-1)!.cell!.continued = true;
        return;
      case 'pStyle':
        if (paragraph) paragraph.style = value;
        return;
      case 'outlineLvl':
        if (paragraph) paragraph.outline = Number(value);
        return;
      case 'numId':
        if (paragraph) paragraph.numId = value;
        return;
      case 'ilvl':
        if (paragraph) paragraph.level = Number(value) || 0;
        return;
      case 'r':
        this.marks = new Set();
        return;
      case 'rPr':
        this.inRunProperties = true;
        return;
      case 'vertAlign':
        if (this.inRunProperties && value === 'superscript') this.marks.add('sup');
        if (this.inRunProperties && value === 'subscript') this.marks.add('sub');
        return;
      case 't':
        this.inText = true;
        return;
      case 'tab':
        if (!this.inRunProperties && name === 'w:tab' && Object.keys(attributes).length === 0) this.add('\t', '\t');
        return;
      case 'br':
      case 'cr':
        this.add('\n', '<br>');
        return;
      case 'noBreakHyphen':
        this.add('-', '-');
        return;
      case 'ins':
        this.odd('tracked-insertion', 'Text marked as inserted was accepted');
        return;
      case 'footnoteReference':
        this.odd('footnote', 'A footnote stays in the stored file');
        return;
      case 'commentReference':
        this.odd('comment', 'A comment stays in the stored file');
        return;
      case 'txbxContent':
        this.odd('text-box', 'A text box was read where it is anchored');
        return;
      case 'docPr':
        this.alt = attributes.descr ?? '';
        return;
      case 'blip':
        this.picture(attributes['r:embed'] ?? '');
        return;
      default:
        if (this.inRunProperties && MARKS[local] && !['0', 'false', 'none'].includes(value)) this.marks.add(MARKS[local]!);
    }
  }

  close(name: string): void {
    if (this.skipping > 0) {
      this.skipping--;
      return;
    }
    const local = localName(name);
    if (local === 't') this.inText = false;
    else if (local === 'rPr') this.inRunProperties = false;
    else if (name === 'w:p') this.closeParagraph();
    else if (local === 'tc') this.closeCell();
    else if (local === 'tr') this.closeRow();
    else if (local === 'tbl') this.closeTable();
  }

  text(text: string): void {
    if (!this.inText || this.skipping > 0) return;
    let html = escapeHtml(text);
    for (const mark of this.marks) html = `<${mark}>${html}</${mark}>`;
    this.add(text, html);
  }

  private add(text: string, html: string): void {
    const paragraph = this.paragraphs.at(-1);
    if (!paragraph) return;
    paragraph.text += text;
    paragraph.html += html;
  }

  private picture(id: string): void {
    const target = this.context.targets.get(id);
    if (!target) return this.odd('picture-linked', 'A picture that lies outside the file was left out');
    if (!this.usedPictures.has(target)) this.usedPictures.set(target, this.says());
    this.add('', `<img src="${pictureScheme}${escapeHtml(target)}" alt="${escapeHtml(this.alt)}">`);
  }

  private closeParagraph(): void {
    const paragraph = this.paragraphs.pop();
    if (!paragraph) return;
    const outer = this.paragraphs.at(-1);
    if (outer) {
      outer.text += ` ${paragraph.text}`;
      outer.html += ` ${paragraph.html}`;
      return;
    }
    const html = joinMarks(paragraph.html);
    const cell = this.tables.at(-1)?.cell;
    if (cell) {
      if (!paragraph.text.trim() && !html) return;
      cell.texts.push(paragraph.text);
      cell.paragraphs.push(html);
      return;
    }
    this.paragraphCount++;
    if (/^(toc|table of contents|contents) ?\d*$/i.test(this.context.styles.get(paragraph.style)?.name ?? ''))
      return this.odd('contents', 'The table of contents was left out');
    const level = paragraph.outline !== undefined ? (paragraph.outline < 9 ? paragraph.outline + 1 : 0) : findLevel(this.context.styles, paragraph.style);
    const isList = level === 0 && paragraph.numId !== undefined && paragraph.numId !== '0';
    const isStyledList = level === 0 && paragraph.numId === undefined && this.context.styles.get(paragraph.style)?.numbered === true;
    this.blocks.push({
      type: 'paragraph',
      at: this.paragraphCount,
      level,
      ...((isList || isStyledList) && { list: { depth: paragraph.level + 1, ordered: isList && this.context.isCounted(paragraph.numId!, paragraph.level) } }),
      text: paragraph.text,
      html,
    });
  }

  private closeCell(): void {
    const table = this.tables.at(-1);
    const cell = table?.cell;
    if (!table || !cell) return;
    table.cell = undefined;
    const html = cell.paragraphs.length === 1 ? cell.paragraphs[0]! : cell.paragraphs.map((one) => `<p>${one}</p>`).join('');
    table.rows.at(-1)?.push({ text: cell.texts.join('\n'), html, span: cell.span, ...(cell.continued && { continued: true }) });
  }

  private closeRow(): void {
    const rows = this.tables.at(-1)?.rows;
    const row = rows?.at(-1);
    const above = rows?.at(-2);
    if (!row || !above) return;
    row.forEach((cell, at) => {
      if (cell.continued && !cell.text) row[at] = { ...(above[at] ?? cell), continued: true };
    });
  }

  private closeTable(): void {
    const table = this.tables.pop();
    if (!table) return;
    const outer = this.tables.at(-1)?.cell;
    if (outer) {
      this.odd('table-nested', 'A table inside a table was read as text of its cell');
      for (const row of table.rows) {
        outer.texts.push(row.map((cell) => cell.text).join('\t'));
        outer.paragraphs.push(row.map((cell) => cell.html).join(' · '));
      }
      return;
    }
    this.blocks.push({ type: 'table', at: ++this.tableCount, rows: table.rows });
  }

  private says(): string {
    return this.tables.length ? `table ${this.tableCount + 1}` : `paragraph ${this.paragraphCount + 1}`;
  }

  private odd(code: string, message: string): void {
    const known = this.oddities.get(code);
    if (known) known.count++;
    else this.oddities.set(code, { at: this.says(), message, count: 1 });
  }
}

/** Runs split by the writer join again: `<strong>a</strong><strong>b</strong>` is one. */
function joinMarks(html: string): string {
  return html.replace(/<\/(strong|em|u|s|sub|sup)><\1>/g, '').trim();
}
