import {
  AlignmentType,
  Bookmark,
  BorderStyle,
  HeadingLevel,
  Paragraph,
  ShadingType,
  Table,
  TableCell,
  TableRow,
  TextRun,
  VerticalAlign,
  WidthType,
} from 'docx';
import { type CoatedWords, coatedRun } from './coated-run.js';

/** A cell of a table: words, or words that look in a certain way. */
export type Cell = string | TextCell | { words: readonly CoatedWords[] };
interface TextCell {
  text: string;
  fill?: string;
  bold?: boolean;
  right?: boolean;
  span?: number;
}
/** What a block of a document consists of. */
export type DocumentPart = Paragraph | Table;

export const anchorOf = (title: string) => `part_${title.replace(/\W+/g, '_').toLowerCase()}`;

export const heading = (text: string, breakBefore = false) =>
  new Paragraph({
    heading: HeadingLevel.HEADING_1,
    pageBreakBefore: breakBefore,
    children: [new Bookmark({ id: anchorOf(text), children: [new TextRun(text)] })],
  });

/** In twentieths of a point. */
export const TABLE_WIDTH = 9000;

/** Widths in twentieths of a point: the shares asked for, but no column narrower than the longest word of its head, set bold. */
export function fitWidths(head: readonly string[], shares: readonly number[], halfPoints: number): number[] {
  const total = shares.reduce((sum, share) => sum + share, 0);
  const wanted = shares.map((share) => Math.round((share / total) * TABLE_WIDTH));
  // A bold letter of the serif is at most about two thirds as wide as the type is high, taken over a word; the cell's margins come to it.
  const least = head.map((text) => Math.ceil(Math.max(...text.split(/\s+/).map((word) => word.length)) * halfPoints * 10 * 0.66) + 140);
  const missing = wanted.reduce((sum, width, column) => sum + Math.max(0, least[column]! - width), 0);
  const spare = wanted.reduce((sum, width, column) => sum + Math.max(0, width - least[column]!), 0);
  return wanted.map((width, column) =>
    width < least[column]! ? least[column]! : Math.round(width - (missing * (width - least[column]!)) / Math.max(1, spare)),
  );
}

export function table(head: string[], rows: Cell[][], widths: number[]): Table {
  const size = head.length > 5 ? 15 : 18;
  const columnWidths = fitWidths(head, widths, size);
  const make = (cell: Cell, column: number, header: boolean) => {
    const words = typeof cell === 'object' && 'words' in cell ? cell.words : [];
    const { text, fill, bold, right, span }: TextCell = typeof cell === 'string' ? { text: cell } : 'words' in cell ? { text: '' } : cell;
    return new TableCell({
      width: { size: columnWidths[column]!, type: WidthType.DXA },
      verticalAlign: VerticalAlign.TOP,
      margins: { top: 50, bottom: 50, left: 60, right: 60 },
      ...(span && { columnSpan: span }),
      ...((fill || header) && { shading: { type: ShadingType.CLEAR, fill: fill ?? 'EFE9DC', color: 'auto' } }),
      children: [
        new Paragraph({
          ...(right && { alignment: AlignmentType.RIGHT }),
          children: words.length > 0 ? words.map((one) => coatedRun(one, size)) : [new TextRun({ text, bold: bold ?? header, size })],
        }),
      ],
    });
  };
  const isRight = (column: number) => rows.some((row) => isRightCell(row[column]));
  const line = { style: BorderStyle.SINGLE, size: 4, color: 'CFC7B6' };
  const none = { style: BorderStyle.NONE, size: 0, color: 'auto' };
  return new Table({
    width: { size: TABLE_WIDTH, type: WidthType.DXA },
    columnWidths,
    borders: { top: line, bottom: line, insideHorizontal: line, left: none, right: none, insideVertical: none },
    rows: [
      new TableRow({ tableHeader: true, children: head.map((text, column) => make({ text, right: isRight(column) }, column, true)) }),
      ...rows.map((row) => new TableRow({ cantSplit: true, children: row.map((cell, column) => make(cell, column, false)) })),
    ],
  });
}

const isRightCell = (cell: Cell | undefined) => typeof cell === 'object' && 'right' in cell && cell.right === true;

export const right = (value: string | number): Cell => ({ text: String(value), right: true });
