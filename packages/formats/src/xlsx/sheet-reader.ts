import { columnName, type Issue, type SheetMerge, type SourceSheet } from '@coomb/core';
import { ReadError } from '../read-error.js';
import { localName, type XmlVisitor } from '../xml/walk-xml.js';
import { asNumber, type CellStyle } from './cell-styles.js';
import { type Index, writeIndex } from '../rich-text/indices.js';
import { INDICES, type SharedStrings, unescapeControls } from './shared-strings.js';
import { Oddities } from './sheet-extras.js';

/** Cells of a sheet, those counted too that stand empty before one that holds something. */
const MOST_CELLS = 1_500_000;
const MOST_ROWS = 1_100_000;
const MOST_MERGES = 200_000;
/** Cells with errors that are told one by one. */
const MOST_ERRORS = 500;
/** Longer numbers carry the noise of binary fractions. */
const EXACT_LENGTH = 15;

/** Turns the events of one sheet into rows of texts. */
export class SheetReader implements XmlVisitor {
  private readonly rows: string[][] = [];
  private readonly merges: SheetMerge[] = [];
  private readonly errors: Issue[] = [];
  private readonly oddities: Oddities;
  private row: string[] = [];
  private column = 0;
  private type = '';
  private style: CellStyle | undefined;
  private value = '';
  private reading = false;
  private index: Index | undefined;
  private hasFormula = false;
  private cells = 0;
  private merged = 0;

  constructor(
    private readonly sheet: string,
    private readonly strings: SharedStrings,
    private readonly styles: readonly CellStyle[],
  ) {
    this.oddities = new Oddities(sheet);
  }

  read(): SourceSheet {
    // Rows that were only formatted hold nothing; those after the last that does are none.
    while (this.rows.length > 0 && this.rows.at(-1)!.every((cell) => !cell?.trim())) this.rows.pop();
    return { name: this.sheet, rows: this.rows, ...(this.merges.length > 0 && { merges: this.merges }) };
  }

  issues(): Issue[] {
    const cut: Issue[] =
      this.merged > MOST_MERGES
        ? [
            {
              severity: 'warning',
              code: 'merges-cut',
              at: this.sheet,
              message: `Only the first ${MOST_MERGES} of ${this.merged} merged cells count as merged; the others are read as they stand`,
            },
          ]
        : [];
    return [...this.errors, ...this.oddities.issues(), ...cut];
  }

  open(name: string, attributes: Record<string, string>): void {
    switch (localName(name)) {
      case 'c':
        this.count(1);
        if (attributes.r) this.column = columnOf(attributes.r);
        this.type = attributes.t ?? 'n';
        this.style = attributes.s === undefined ? undefined : this.styles[Number(attributes.s)];
        this.value = '';
        this.index = undefined;
        this.hasFormula = false;
        return;
      case 'v':
      case 't':
        this.reading = true;
        return;
      case 'f':
        this.hasFormula = true;
        return;
      case 'r':
        this.index = undefined;
        return;
      case 'vertAlign':
        this.index = INDICES[attributes.val ?? ''];
        return;
      case 'row':
        return this.openRow(attributes);
      case 'mergeCell': {
        const merge = readMerge(attributes.ref ?? '');
        if (merge && ++this.merged <= MOST_MERGES) this.merges.push(merge);
        return;
      }
      case 'hyperlink':
        if (attributes['r:id']) {
          const at = readPlace(attributes.ref ?? '');
          this.oddities.add('cell-link', 'note', 'A cell leads to an address; its words were read, the address stays in the stored file', at.row, at.column);
        }
    }
  }

  close(name: string): void {
    switch (localName(name)) {
      case 'v':
      case 't':
        this.reading = false;
        return;
      case 'c':
        this.closeCell();
    }
  }

  text(part: string): void {
    if (this.reading) this.value += this.index ? (writeIndex(part, this.index) ?? part) : part;
  }

  private openRow(attributes: Record<string, string>): void {
    const at = Number(attributes.r ?? this.rows.length + 1) - 1;
    while (this.rows.length < at && this.rows.length < MOST_ROWS) this.rows.push([]);
    this.row = [];
    this.rows.push(this.row);
    this.column = 0;
    if (attributes.hidden === '1' || attributes.hidden === 'true')
      this.oddities.add('row-hidden', 'note', 'A row is hidden or filtered out; it was read like any other', this.rows.length - 1, -1);
  }

  private closeCell(): void {
    const { row, column } = this;
    const text = this.readCell(column);
    this.column++;
    // Cells that are only formatted reach far beyond what a sheet says.
    if (text === '') return;
    this.count(Math.max(0, column - row.length));
    while (row.length < column) row.push('');
    row[column] = text;
  }

  private count(cells: number): void {
    this.cells += cells;
    if (this.cells > MOST_CELLS)
      throw new ReadError(
        'sheet-too-large',
        `The sheet "${this.sheet}" holds more than ${MOST_CELLS.toLocaleString('en-GB')} cells, at row ${this.rows.length}, and was refused. Divide it, or take out what lies far from the rest.`,
      );
  }

  private readCell(column: number): string {
    const { value, style } = this;
    switch (this.type) {
      case 's':
        if (style?.struck || this.strings.struck.has(Number(value))) this.tellStruck(column);
        return this.strings.texts[Number(value)] ?? '';
      case 'b':
        return value === '1' ? 'yes' : 'no';
      case 'e':
        if (this.errors.length >= MOST_ERRORS)
          this.oddities.add('cell-errors', 'warning', 'More cells show errors; they were read as empty', this.rows.length - 1, column);
        else
          this.errors.push({
            severity: 'warning',
            code: 'cell-error',
            at: `${this.sheet}!${columnName(column)}${this.rows.length}`,
            message: `The cell shows the error ${value}; it was read as empty`,
          });
        return '';
      case 'n':
        return this.readNumber(column);
      case 'd':
        return value.replace(/T00:00:00(\.0+)?Z?$/, '');
      default:
        if (style?.struck && value) this.tellStruck(column);
        return unescapeControls(value);
    }
  }

  private readNumber(column: number): string {
    const { value, style } = this;
    if (!value) {
      if (this.hasFormula)
        this.oddities.add(
          'formula-empty',
          'warning',
          'A formula has no value in the file and was read as empty; open and save the workbook in a spreadsheet program',
          this.rows.length - 1,
          column,
        );
      return '';
    }
    if (style?.struck) this.tellStruck(column);
    if (style?.show) return Number.isFinite(Number(value)) ? style.show(Number(value)) : value;
    return value.length > EXACT_LENGTH && Number.isFinite(Number(value)) && !/^-?\d+$/.test(value) ? asNumber(Number(value)) : value;
  }

  private tellStruck(column: number): void {
    this.oddities.add('cell-struck', 'warning', 'A text is struck through; it was read like any other', this.rows.length - 1, column);
  }
}

/** `B2:D2` as rows and columns from 0. */
function readMerge(reference: string): SheetMerge | undefined {
  const [from, to] = reference.split(':');
  if (!from || !to) return undefined;
  const [first, last] = [readPlace(from), readPlace(to)];
  const merge = { top: first.row, left: first.column, bottom: last.row, right: last.column };
  return merge.top < 0 || merge.left < 0 || merge.bottom < merge.top || merge.right < merge.left ? undefined : merge;
}

function columnOf(reference: string): number {
  let column = 0;
  for (let at = 0; at < reference.length; at++) {
    const code = reference.charCodeAt(at) - 64;
    if (code < 1 || code > 26) break;
    column = column * 26 + code;
  }
  return Math.min(column - 1, 16_383);
}

/** `B2` as row and column from 0. */
function readPlace(cell: string): { row: number; column: number } {
  return { row: Number(/\d+$/.exec(cell)?.[0] ?? 0) - 1, column: columnOf(cell) };
}
