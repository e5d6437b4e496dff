import { PassThrough } from 'node:stream';
import { setImmediate } from 'node:timers/promises';
import ExcelJS from 'exceljs';
import { sheetName } from './write-workbook.js';

export interface TableColumn {
  name: string;
  type: 'words' | 'number' | 'moment';
  /** Pixels, as on screen. */
  width: number;
}

/** A value in its cell; words may lead to an address. */
export type TableCell = null | string | number | Date | { text: string; hyperlink: string };

/** Beyond so many cells a table is written row by row, with a filter over its head in place of a table of the workbook. */
const MOST_IN_TABLE = 200_000;
/** A sheet holds no more links than these. */
const MOST_LINKS = 65_000;
/** Letters that a cell of a workbook holds. */
const MOST_LETTERS = 32_767;
const BLOCK = 500;
const PIXELS_PER_LETTER = 7;
/** Before this day workbooks know no dates. */
const FIRST_DAY = Date.UTC(1900, 2, 1);

/**
 * A workbook of one sheet that is a table: names of columns stay in sight and filter, numbers and days are such, widths are those on screen.
 * `count` is how many rows come.
 */
export async function* writeTable(name: string, columns: readonly TableColumn[], rows: AsyncIterable<TableCell[]>, count: number): AsyncGenerator<Uint8Array> {
  const isSmall = count > 0 && columns.length > 0 && count * columns.length <= MOST_IN_TABLE;
  const stream = new PassThrough();
  const whole = isSmall ? new ExcelJS.Workbook() : undefined;
  const streamed = whole ? undefined : new ExcelJS.stream.xlsx.WorkbookWriter({ stream, useStyles: true });
  const writing = (async () => {
    const sheet = (whole ?? streamed!).addWorksheet(sheetName(name), { views: [{ state: 'frozen', ySplit: 1 }] });
    const names = tellApart(columns.map((column) => column.name));
    sheet.columns = columns.map(({ type, width }) => ({
      width: Math.max(6, Math.round(width / PIXELS_PER_LETTER)),
      style: { alignment: { wrapText: type === 'words', vertical: 'top' as const }, ...(type === 'moment' && { numFmt: 'yyyy-mm-dd' }) },
    }));
    const head = sheet.addRow(names);
    head.font = { bold: true };
    if (!isSmall) head.commit();
    let at = 0;
    for await (const cells of rows) {
      const row = sheet.addRow(cells.map((cell) => cellOf(cell, at < MOST_LINKS)));
      cells.forEach((cell, index) => {
        if (cell instanceof Date && cell.getTime() % 86_400_000 !== 0) row.getCell(index + 1).numFmt = 'yyyy-mm-dd hh:mm';
        if (cell !== null && typeof cell === 'object' && 'hyperlink' in cell && at < MOST_LINKS)
          row.getCell(index + 1).font = { underline: true, color: { argb: 'FF1F5C4A' } };
      });
      if (!isSmall) row.commit();
      if (++at % BLOCK === 0) await setImmediate();
    }
    const end = { row: at + 1, column: columns.length };
    if (isSmall && at > 0) {
      sheet.addTable({ name: 'Rows', ref: 'A1', headerRow: true, columns: names.map((one) => ({ name: one, filterButton: true })), rows: [] });
      // The rows stand already: the table is laid over them.
      const table = sheet.getTable('Rows') as unknown as { table: { autoFilterRef: string; tableRef: string } };
      table.table.tableRef = table.table.autoFilterRef = `A1:${sheet.getColumn(end.column).letter}${end.row}`;
    } else if (columns.length > 0) sheet.autoFilter = { from: { row: 1, column: 1 }, to: end };
    if (whole) {
      await whole.xlsx.write(stream);
      stream.end();
    } else {
      sheet.commit();
      await streamed!.commit();
    }
  })();
  writing.catch((error) => stream.destroy(error));
  for await (const piece of stream) yield piece as Uint8Array;
  await writing;
}

function cellOf(cell: TableCell, mayLink: boolean): ExcelJS.CellValue {
  if (cell === null || typeof cell === 'number') return cell;
  if (cell instanceof Date) return cell.getTime() >= FIRST_DAY ? cell : cell.toISOString().slice(0, 10);
  const text = typeof cell === 'string' ? cell : cell.text;
  const cut = text.length > MOST_LETTERS ? `${text.slice(0, MOST_LETTERS - 20)}… (cut)` : text;
  return typeof cell === 'string' || !mayLink ? cut : { text: cut, hyperlink: cell.hyperlink };
}

/** Columns of a table have names that differ, whatever their case, and that are not empty. */
function tellApart(names: readonly string[]): string[] {
  const known = new Set<string>();
  return names.map((name) => {
    const own = name.trim() || 'Column';
    let free = own;
    for (let at = 2; known.has(free.toLowerCase()); at++) free = `${own} ${at}`;
    known.add(free.toLowerCase());
    return free;
  });
}
