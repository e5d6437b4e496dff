import { tableOf, escapeHtml, type Issue, type SourceBlock } from '@coomb/core';
import { ReadError } from '../read-error.js';
import { pictureScheme } from '../rich-text/sanitise.js';
import { localName, type XmlVisitor } from '../xml/walk-xml.js';
import { FormulaReader } from './formula.js';
import type { BodyContext } from './body-context.js';
import type { Note } from './notes.js';
import { NumberCounter } from './numbering.js';
import { findLevel, isHidden, findNumbering } from './styles.js';
import { readSigns, signOf, UNKNOWN_SIGN } from '../rich-text/symbols.js';
import { asPlainWords, asWords, TableReader } from './table-reader.js';
import { addWords, closeWords, openWords, type OpenWords, type Revision, takeIn } from './words.js';

interface OpenParagraph {
  words: OpenWords;
  style: string;
  outline: number | undefined;
  numId: string | undefined;
  level: number | undefined;
}

const MARKS = tableOf<string>({ b: 'strong', i: 'em', u: 'u', strike: 's' });
const SKIPPED = new Set(['Fallback', 'instrText', 'delInstrText', 'sectPr', 'pPrChange', 'rPrChange', 'tblPrChange', 'tcPrChange', 'trPrChange']);
const REVISIONS = tableOf<Revision>({ ins: 'in', moveTo: 'in', del: 'out', moveFrom: 'out' });
/** Remarks on tracked changes, of which a rewritten document may hold very many. */
const MOST_REMARKS = 500;
const DEEPEST_TABLES = 3;
/** Those in the cells of tables are counted too. */
const MOST_PARAGRAPHS = 500_000;
/** Pieces of one paragraph that are formatted each by itself. */
const MOST_RUNS = 200_000;
/** Indices of indices that are still shown as such. */
const MOST_INDICES = 3;

/** Turns the events of `word/document.xml` into blocks. A table in a cell is part of that cell's text, and a block of its own after it. */
export class BodyReader implements XmlVisitor {
  readonly blocks: SourceBlock[] = [];
  /** Picture targets with the place of their first use. */
  readonly usedPictures = new Map<string, string>();
  private readonly context: BodyContext;
  private readonly paragraphs: OpenParagraph[] = [];
  private readonly tables: TableReader[] = [];
  private readonly tracked: Issue[] = [];
  private readonly counter: NumberCounter;
  private readonly oddities = new Map<string, { at: string; message: string; count: number; severity: Issue['severity'] }>();
  private readonly marks = new Set<string>();
  private readonly formula = new FormulaReader();
  private readonly addFormula = (text: string) => this.add(text, this.mark(escapeHtml(text)));
  /** Font of the run, where it is named: some fonts show signs in place of letters. */
  private font = '';
  /** Address that a link around the present runs leads to. */
  private readonly links: string[] = [];
  private skipping = 0;
  /** Inside the properties of a run or a row, where elements describe and do not hold. */
  private inProperties = false;
  private readonly revisions: { is: Revision; by: string }[] = [];
  /** Content controls that are open; true where they hold nothing but their hint. */
  private readonly controls: boolean[] = [];
  private noteCount = 0;
  private inText = false;
  private alt = '';
  private paragraphCount = 0;
  private openCount = 0;
  private runCount = 0;
  private tableCount = 0;

  constructor(context: BodyContext) {
    this.context = context;
    this.counter = new NumberCounter(context.numbering);
  }

  issues(): Issue[] {
    const odd = [...this.oddities].map(
      ([code, { at, message, count, severity }]): Issue => ({ severity, code, at, message: count > 1 ? `${message} (${count} times, first here)` : message }),
    );
    return [...odd, ...this.tracked];
  }

  open(name: string, attributes: Record<string, string>): void {
    const local = localName(name);
    if (this.skipping > 0 || SKIPPED.has(local)) {
      this.skipping++;
      return;
    }
    if (this.formula.open(name, attributes, this.addFormula)) return;
    const value = attributes['w:val'] ?? '';
    const paragraph = this.paragraphs.at(-1);
    switch (local) {
      case 'p':
        if (name !== 'w:p') return;
        this.runCount = 0;
        if (++this.openCount > MOST_PARAGRAPHS)
          throw new ReadError(
            'document-too-large',
            `The document holds more than ${MOST_PARAGRAPHS} paragraphs, those in tables counted, and was refused. Divide it and hand in the parts.`,
          );
        this.paragraphs.push({ words: openWords(), style: '', outline: undefined, numId: undefined, level: undefined });
        return;
      case 'tbl':
        this.tables.push(new TableReader());
        return;
      case 'tr':
        this.tables.at(-1)?.openRow();
        return;
      case 'tc':
        this.tables.at(-1)?.openCell();
        return;
      case 'gridSpan':
        if (this.tables.at(-1)?.cell) this.tables.at(-1)!.cell!.span = Math.max(1, Math.min(60, Number(value) || 1));
        return;
      case 'vMerge':
        if (this.tables.at(-1)?.cell && value !== 'restart') this.tables.at(-1)!.cell!.continued = true;
        return;
      case 'gridBefore':
        this.tables.at(-1)?.skipColumns(Number(value) || 0);
        return;
      case 'tblHeader':
        if (isOn(value)) this.tables.at(-1)?.markHeader();
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
        if (++this.runCount > MOST_RUNS)
          throw new ReadError(
            'document-too-large',
            `Paragraph ${this.paragraphCount + 1} holds more than ${MOST_RUNS} pieces of text, as no document does; the file was refused.`,
          );
        this.marks.clear();
        this.font = '';
        return;
      case 'rFonts':
        if (this.inProperties) this.font = attributes['w:ascii'] ?? '';
        return;
      case 'sym':
        this.sign(Number.parseInt(attributes['w:char'] ?? '', 16), attributes['w:font'] ?? '');
        return;
      case 'rStyle':
        if (this.inProperties && isHidden(this.context.styles, value)) this.odd('hidden-text', 'Hidden text was read like any other');
        return;
      case 'vanish':
        if (this.inProperties && isOn(value)) this.odd('hidden-text', 'Hidden text was read like any other');
        return;
      case 'hyperlink':
        this.links.push(this.context.addresses.get(attributes['r:id'] ?? '') ?? '');
        return;
      case 'rPr':
      case 'trPr':
        this.inProperties = true;
        return;
      case 'vertAlign':
        if (this.inProperties && value === 'superscript') this.marks.add('sup');
        if (this.inProperties && value === 'subscript') this.marks.add('sub');
        return;
      case 'position':
        // Some writers raise and lower by a distance; that of half a line up or down is an index.
        if (this.inProperties && Number(value) !== 0) this.marks.add(Number(value) > 0 ? 'sup' : 'sub');
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
      case 'shape':
        this.alt = attributes.alt ?? '';
        return;
      case 'imagedata':
        this.picture(attributes['r:id'] ?? '');
        return;
      case 'OLEObject':
        this.odd('object', 'An embedded object is shown by its picture; the object itself stays in the stored file');
        return;
      case 'altChunk':
      case 'subDoc':
        this.odd(
          'part-apart',
          'A part of the document is a file of its own inside it, or beside it, and was not read; save the document again in a word processor to join it',
          'warning',
        );
        return;
      case 'sdt':
        this.controls.push(false);
        return;
      case 'showingPlcHdr':
        if (this.controls.at(-1) !== false || !isOn(value)) return;
        this.controls[this.controls.length - 1] = true;
        this.odd('placeholder', 'A field of a form shows only the hint what to write there; it was read as empty');
        return;
      case 'chart':
      case 'relIds':
        this.odd('chart', 'A chart or diagram was left out; it stays in the stored file');
        return;
      default:
        if (this.inProperties && MARKS[local] && isOn(value)) this.marks.add(MARKS[local]!);
    }
  }

  close(name: string): void {
    if (this.skipping > 0) {
      this.skipping--;
      return;
    }
    if (this.formula.close(name, this.addFormula)) return;
    const local = localName(name);
    if (local === 't' || local === 'delText') this.inText = false;
    else if (local === 'rPr' || local === 'trPr') this.inProperties = false;
    else if (name === 'w:p') this.closeParagraph();
    else if (local === 'tc') this.tables.at(-1)?.closeCell();
    else if (local === 'tr') this.tables.at(-1)?.closeRow();
    else if (local === 'hyperlink') this.links.pop();
    else if (local === 'tbl') this.closeTable();
    else if (local === 'sdt') this.controls.pop();
    else if (REVISIONS[local] && !this.inProperties) this.revisions.pop();
  }

  text(text: string): void {
    if (!this.inText || this.skipping > 0) return;
    const readable = this.readable(text);
    this.add(readable, this.mark(escapeHtml(readable)));
  }

  private mark(html: string): string {
    let marked = html;
    for (const mark of this.marks) marked = `<${mark}>${marked}</${mark}>`;
    for (const index of this.formula.indices.slice(-MOST_INDICES)) marked = `<${index}>${marked}</${index}>`;
    const address = this.links.at(-1);
    return address ? `<a href="${escapeHtml(address)}">${marked}</a>` : marked;
  }

  private readable(text: string): string {
    const readable = readSigns(text, this.font);
    if (readable.includes(UNKNOWN_SIGN) && !text.includes(UNKNOWN_SIGN)) this.oddSign();
    return readable;
  }

  private sign(code: number, font: string): void {
    const sign = signOf(code, font);
    if (sign === UNKNOWN_SIGN) this.oddSign();
    this.add(sign, this.mark(sign));
  }

  private oddSign(): void {
    this.odd('sign-unknown', `A sign of a picture font is not known here; ${UNKNOWN_SIGN} stands for it`);
  }

  private add(text: string, html: string): void {
    const words = this.paragraphs.at(-1)?.words;
    if (!words || this.controls.includes(true)) return;
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
    if (isHidden(this.context.styles, paragraph.style)) this.odd('hidden-text', 'Hidden text was read like any other');
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

  private closeTable(): void {
    const reader = this.tables.pop();
    if (!reader) return;
    const table = reader.close();
    const outer = this.tables.at(-1);
    if (!outer?.cell) {
      const at = ++this.tableCount;
      this.blocks.push({ ...table, at });
      for (const inner of reader.inner) this.blocks.push({ ...inner, at: ++this.tableCount, inside: at });
    } else if (this.tables.length > DEEPEST_TABLES) {
      this.odd('table-deep', `Tables nested more than ${DEEPEST_TABLES} deep were read as text of their cell`);
      outer.cell.paragraphs.push(asPlainWords(table));
    } else {
      outer.inner.push({ ...table, at: 0 }, ...reader.inner);
      outer.cell.paragraphs.push(asWords(table));
    }
  }

  private says(): string {
    return this.tables.length ? `table ${this.tableCount + 1}` : `paragraph ${this.paragraphCount + 1}`;
  }

  private odd(code: string, message: string, severity: Issue['severity'] = 'note'): void {
    const known = this.oddities.get(code);
    if (known) known.count++;
    else this.oddities.set(code, { at: this.says(), message, count: 1, severity });
  }
}

/** Whether a property that can be off is on: it is when nothing is said. */
function isOn(value: string): boolean {
  return !['0', 'false', 'none', 'off'].includes(value);
}
