import { escapeHtml, type SourceCell, type SourceTable, type SourceWords } from '@coomb/core';
import { joinWords } from './words.js';

interface OpenCell {
  paragraphs: SourceWords[];
  span: number;
  continued: boolean;
}

/** One table while it is read. */
export class TableReader {
  private readonly rows: SourceCell[][] = [];
  private headers = 0;
  cell: OpenCell | undefined;
  /** Tables that stand in its cells. */
  readonly inner: SourceTable[] = [];

  openRow(): void {
    this.rows.push([]);
  }

  openCell(): void {
    this.cell = { paragraphs: [], span: 1, continued: false };
  }

  /** Columns that a row leaves free at its start. */
  skipColumns(count: number): void {
    if (count > 0) this.rows.at(-1)?.push({ text: '', html: '', span: Math.min(60, count) });
  }

  /** The row is one of the header, as far as all above it are. */
  markHeader(): void {
    if (this.headers === this.rows.length - 1) this.headers++;
  }

  closeCell(): void {
    const { cell } = this;
    if (!cell) return;
    this.cell = undefined;
    const { text, html, tracked, footnotes, comments }: SourceWords = cell.paragraphs.length === 0 ? { text: '', html: '' } : joinWords(cell.paragraphs);
    const made: SourceCell = { text, html, span: cell.span };
    if (tracked) made.tracked = tracked;
    if (footnotes) made.footnotes = footnotes;
    if (comments) made.comments = comments;
    if (cell.continued) made.continued = true;
    this.rows.at(-1)?.push(made);
  }

  /** A cell that goes on from above holds what stands in the cell above that begins in the same column. */
  closeRow(): void {
    const row = this.rows.at(-1);
    const above = this.rows.at(-2);
    if (!row || !above || !row.some((cell) => cell.continued)) return;
    const starts = new Map<number, SourceCell>();
    let column = 0;
    for (const cell of above) {
      starts.set(column, cell);
      column += cell.span;
    }
    column = 0;
    row.forEach((cell, at) => {
      const from = starts.get(column);
      if (cell.continued && !cell.text && from) row[at] = { ...from, span: cell.span, continued: true };
      column += cell.span;
    });
  }

  close(): Omit<SourceTable, 'at'> {
    return { type: 'table', rows: this.rows, ...(this.headers > 1 && this.headers < this.rows.length && { headerRows: this.headers }) };
  }
}

/** A table as words of the cell it stands in. */
export function asWords({ rows }: Pick<SourceTable, 'rows'>): SourceWords {
  const markup = (version: (cell: SourceCell) => string) =>
    `<table><tbody>${rows.map((row) => `<tr>${row.map((cell) => `<td${cell.span > 1 ? ` colspan="${cell.span}"` : ''}>${version(cell)}</td>`).join('')}</tr>`).join('')}</tbody></table>`;
  const texts = (version: (cell: SourceCell) => string) => rows.map((row) => row.map(version).join('\t')).join('\n');
  const words: SourceWords = { text: texts((cell) => cell.text), html: markup((cell) => cell.html) };
  if (rows.some((row) => row.some((cell) => cell.tracked)))
    words.tracked = {
      text: texts((cell) => (cell.tracked ?? cell).text),
      html: markup((cell) => (cell.tracked ?? cell).html),
      marked: markup((cell) => cell.tracked?.marked ?? cell.html),
    };
  return words;
}

/** A table nested too deep, as plain words. */
export function asPlainWords({ rows }: Pick<SourceTable, 'rows'>): SourceWords {
  const text = rows.map((row) => row.map((cell) => cell.text).join('\t')).join('\n');
  return { text, html: escapeHtml(text) };
}
