import { escapeHtml, type Issue, type SourceBlock, type SourceCell, type SourceTable, type SourceWords } from '@coomb/core';
import { pictureScheme } from '../rich-text/sanitise.js';
import { localName, type XmlVisitor } from '../xml/walk-xml.js';
import type { Note } from './notes.js';
import { NumberCounter, type Numbering } from './numbering.js';
import { findLevel, findNumbering, type ParagraphStyle } from './styles.js';
import { addWords, closeWords, joinWords, openWords, type OpenWords, type Revision, takeIn } from './words.js';

export interface BodyContext {
  styles: Map<string, ParagraphStyle>;
  numbering: Numbering | undefined;
  targets: Map<string, string>;
  /** Footnotes, endnotes and comments by id. */
  footnotes: Map<string, Note>;
  endnotes: Map<string, Note>;
  comments: Map<string, Note>;
}

interface OpenParagraph {
  words: OpenWords;
  style: string;
  outline: number | undefined;
  numId: string | undefined;
  level: number | undefined;
}

interface OpenTable {
  rows: SourceCell[][];
  cell: { paragraphs: SourceWords[]; span: number; continued: boolean } | undefined;
  /** Tables that stand in its cells. */
  inner: SourceTable[];
}

const MARKS: Record<string, string> = { b: 'strong', i: 'em', u: 'u', strike: 's' };
const SKIPPED = new Set(['Fallback', 'instrText', 'delInstrText', 'sectPr', 'pPrChange', 'rPrChange', 'tblPrChange', 'tcPrChange', 'trPrChange']);
const REVISIONS: Record<string, Revision> = { ins: 'in', moveTo: 'in', del: 'out', moveFrom: 'out' };
/** Remarks on tracked changes, of which a rewritten document may hold very many. */
const MOST_REMARKS = 500;
const DEEPEST_TABLES = 3;

/** Turns the events of `word/document.xml` into blocks. A table in a cell is part of that cell's text, and a block of its own after it. */
export class BodyReader implements XmlVisitor {
  readonly blocks: SourceBlock[] = [];
  /** Picture targets with the place of their first use. */
  readonly usedPictures = new Map<string, string>();
  private readonly context: BodyContext;
  private readonly paragraphs: OpenParagraph[] = [];
  private readonly tables: OpenTable[] = [];
  private readonly tracked: Issue[] = [];
  private readonly counter: NumberCounter;
  private readonly oddities = new Map<string, { at: string; message: string; count: number }>();
  private readonly marks = new Set<string>();
  private skipping = 0;
  /** Inside the properties of a run or a row, where elements describe and do not hold. */
  private inProperties = false;
  private readonly revisions: { is: Revision; by: string }[] = [];
  private noteCount = 0;
  private inText = false;
  private alt = '';
  private paragraphCount = 0;
  private tableCount = 0;

  constructor(context: BodyContext) {
    this.context = context;
    this.counter = new NumberCounter(context.numbering);
  }

  issues(): Issue[] {
    const odd = [...this.oddities].map(
      ([code, { at, message, count }]): Issue => ({ severity: 'note', code, at, message: count > 1 ? `${message} (${count} times, first here)` : message }),
    );
    return [...odd, ...this.tracked];
  }

  open(name: string, attributes: Record<string, string>): void {
    const local = localName(name);
    if (this.skipping > 0 || SKIPPED.has(local)) {
      this.skipping++;
      return;
    }
    const value = attributes['w:val'] ?? '';
    const paragraph = this.paragraphs.at(-1);
    switch (local) {
      case 'p':
        if (name === 'w:p') this.paragraphs.push({ words: openWords(), style: '', outline: undefined, numId: undefined, level: undefined });
        return;
      case 'tbl':
        this.tables.push({ rows: [], cell: undefined, inner: [] });
        return;
      case 'tr':
        this.tables.at(-1)?.rows.push([]);
        return;
      case 'tc':
        if (this.tables.length) this.tables.at(-1)!.cell = { paragraphs: [], span: 1, continued: false };
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
        this.marks.clear();
        return;
      case 'rPr':
      case 'trPr':
        this.inProperties = true;
        return;
      case 'vertAlign':
        if (this.inProperties && value === 'superscript') this.marks.add('sup');
        if (this.inProperties && value === 'subscript') this.marks.add('sub');
        return;
      case 't':
      case 'delText':
        this.inText = true;
        return;
      case 'tab':
        if (!this.inProperties && name === 'w:tab' && Object.keys(attributes).length === 0) this.add('\t', '\t');
        return;
      case 'br':
      case 'cr':
        this.add('\n', '<br>');
        return;
      case 'noBreakHyphen':
        this.add('-', '-');
        return;
      case 'ins':
      case 'del':
      case 'moveTo':
      case 'moveFrom':
        this.openRevision(local, attributes);
        return;
      case 'footnoteReference':
        this.footnote(this.context.footnotes.get(attributes['w:id'] ?? ''));
        return;
      case 'endnoteReference':
        this.footnote(this.context.endnotes.get(attributes['w:id'] ?? ''));
        return;
      case 'commentReference':
        this.comment(this.context.comments.get(attributes['w:id'] ?? ''));
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
        if (this.inProperties && MARKS[local] && !['0', 'false', 'none'].includes(value)) this.marks.add(MARKS[local]!);
    }
  }

  close(name: string): void {
    if (this.skipping > 0) {
      this.skipping--;
      return;
    }
    const local = localName(name);
    if (local === 't' || local === 'delText') this.inText = false;
    else if (local === 'rPr' || local === 'trPr') this.inProperties = false;
    else if (name === 'w:p') this.closeParagraph();
    else if (local === 'tc') this.closeCell();
    else if (local === 'tr') this.closeRow();
    else if (local === 'tbl') this.closeTable();
    else if (REVISIONS[local] && !this.inProperties) this.revisions.pop();
  }

  text(text: string): void {
    if (!this.inText || this.skipping > 0) return;
    let html = escapeHtml(text);
    if (this.marks.size) for (const mark of this.marks) html = `<${mark}>${html}</${mark}>`;
    this.add(text, html);
  }

  private add(text: string, html: string): void {
    const words = this.paragraphs.at(-1)?.words;
    if (!words) return;
    if (this.revisions.length === 0) return addWords(words, undefined, text, html);
    addWords(words, this.revision(), text, html);
    words.by ??= new Set();
    for (const { by } of this.revisions) words.by.add(by);
  }

  private revision(): Revision {
    const [first] = this.revisions;
    return this.revisions.every(({ is }) => is === first!.is) ? first!.is : 'neither';
  }

  /** A change of a passage; inside properties it is one of a paragraph's end or a row, whose words carry it anyway. */
  private openRevision(local: string, attributes: Record<string, string>): void {
    if (this.inProperties) {
      if (REVISIONS[local] === 'out' && this.paragraphs.length) this.odd('tracked-joined', 'A tracked change joins paragraphs; they were left apart');
      return;
    }
    const who = attributes['w:author'] || 'somebody';
    const when = attributes['w:date']?.slice(0, 10);
    this.revisions.push({ is: REVISIONS[local]!, by: when ? `${who} on ${when}` : who });
  }

  private footnote(note: Note | undefined): void {
    const words = this.paragraphs.at(-1)?.words;
    if (!words) return;
    if (!note?.text) return this.odd('footnote-missing', 'A footnote that the text names is not in the file, or is empty');
    const mark = `[${++this.noteCount}]`;
    this.add(mark, `<sup>${mark}</sup>`);
    (words.footnotes ??= []).push({ mark, html: escapeHtml(note.text).replace(/\n/g, '<br>') });
  }

  private comment(note: Note | undefined): void {
    const words = this.paragraphs.at(-1)?.words;
    if (!words || !note) return;
    (words.comments ??= []).push({ by: note.by, text: note.text });
    this.odd('comment', 'A comment is shown beside the document and stays in the stored file; it becomes no part of an item');
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
    if (outer) return takeIn(outer.words, paragraph.words);
    const words = closeWords(paragraph.words);
    if (words.tracked) this.remarkTracked(paragraph.words.by);
    const cell = this.tables.at(-1)?.cell;
    if (cell) {
      const number = words.text.trim() ? this.count(paragraph)?.number : undefined;
      if (number) cell.paragraphs.push({ ...words, text: `${number} ${words.text}`, html: `${escapeHtml(number)} ${words.html}` });
      else if (words.text.trim() || words.html || words.tracked) cell.paragraphs.push(words);
      return;
    }
    this.paragraphCount++;
    if (/^(toc|table of contents|contents) ?\d*$/i.test(this.context.styles.get(paragraph.style)?.name ?? ''))
      return this.odd('contents', 'The table of contents was left out');
    const level = paragraph.outline !== undefined ? (paragraph.outline < 9 ? paragraph.outline + 1 : 0) : findLevel(this.context.styles, paragraph.style);
    const count = words.text.trim() || words.html ? this.count(paragraph) : undefined;
    this.blocks.push({
      type: 'paragraph',
      at: this.paragraphCount,
      level,
      ...(level === 0 && count && { list: { depth: count.depth, ordered: count.counted } }),
      ...(count?.number !== undefined && { number: count.number }),
      ...words,
    });
  }

  /** Place of a paragraph in its list, by its own numbering or that of its style. */
  private count({ numId, level, style }: OpenParagraph): { depth: number; counted: boolean; number: string | undefined } | undefined {
    if (numId === '0') return undefined;
    const styled = numId === undefined ? findNumbering(this.context.styles, style) : undefined;
    const id = numId ?? styled?.numId;
    if (id === undefined) return undefined;
    const at = level ?? styled?.level ?? this.context.numbering?.ofStyle.get(style) ?? 0;
    return { depth: at + 1, counted: this.counter.isCounted(id, at), number: this.counter.next(id, at) };
  }

  private remarkTracked(by: ReadonlySet<string> | undefined): void {
    if (this.tracked.length >= MOST_REMARKS) return this.odd('tracked-more', 'More places with tracked changes are not listed one by one');
    const who = [...(by ?? [])].join(', ');
    this.tracked.push({
      severity: 'note',
      code: 'tracked',
      at: this.says(),
      message: `Changes by ${who} are tracked here; the recipe says whether they are accepted`,
    });
  }

  private closeCell(): void {
    const table = this.tables.at(-1);
    const cell = table?.cell;
    if (!table || !cell) return;
    table.cell = undefined;
    const { text, html, tracked, footnotes, comments }: SourceWords = cell.paragraphs.length === 0 ? { text: '', html: '' } : joinWords(cell.paragraphs);
    const made: SourceCell = { text, html, span: cell.span };
    if (tracked) made.tracked = tracked;
    if (footnotes) made.footnotes = footnotes;
    if (comments) made.comments = comments;
    if (cell.continued) made.continued = true;
    table.rows.at(-1)?.push(made);
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
    const outer = this.tables.at(-1);
    if (!outer?.cell) {
      const at = ++this.tableCount;
      this.blocks.push({ type: 'table', at, rows: table.rows });
      for (const inner of table.inner) this.blocks.push({ ...inner, at: ++this.tableCount, inside: at });
      return;
    }
    if (this.tables.length > DEEPEST_TABLES) {
      this.odd('table-deep', `Tables nested more than ${DEEPEST_TABLES} deep were read as text of their cell`);
      const texts = table.rows.map((row) => row.map((cell) => cell.text).join('\t')).join('\n');
      outer.cell.paragraphs.push({ text: texts, html: escapeHtml(texts) });
      return;
    }
    outer.inner.push({ type: 'table', at: 0, rows: table.rows }, ...table.inner);
    const rows = (version: (cell: SourceCell) => string) =>
      `<table><tbody>${table.rows.map((row) => `<tr>${row.map((cell) => `<td${cell.span > 1 ? ` colspan="${cell.span}"` : ''}>${version(cell)}</td>`).join('')}</tr>`).join('')}</tbody></table>`;
    const texts = (version: (cell: SourceCell) => string) => table.rows.map((row) => row.map(version).join('\t')).join('\n');
    const isTracked = table.rows.some((row) => row.some((cell) => cell.tracked));
    outer.cell.paragraphs.push({
      text: texts((cell) => cell.text),
      html: rows((cell) => cell.html),
      ...(isTracked && {
        tracked: {
          text: texts((cell) => (cell.tracked ?? cell).text),
          html: rows((cell) => (cell.tracked ?? cell).html),
          marked: rows((cell) => cell.tracked?.marked ?? cell.html),
        },
      }),
    });
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
