import { PassThrough } from 'node:stream';
import { setImmediate } from 'node:timers/promises';
import { CoombError, MOST_SAVED_CELLS, type saveMatrix } from '@coomb/contract';
import ExcelJS from 'exceljs';
import type { Input } from '../http/route.js';
import { writeCsvRows } from '../tables/rows.js';
import { sheetName } from '../tables/write-workbook.js';

type Matrix = Input<typeof saveMatrix>['body'];

/** Rows between which other work has its turn. */
const BLOCK = 200;
/** References and titles of the rows stand before the cells, those of the columns above them. */
const HEADS = 2;

/** What the cells of each row say, row by row. Throws input-invalid where the matrix is too large for a table, or a cell stands outside. */
function cellsByRow({ rows, columns, words, cells }: Matrix): Map<number, [column: number, says: string][]> {
  if (rows.length * columns.length > MOST_SAVED_CELLS)
    throw new CoombError(
      'input-invalid',
      `${rows.length} × ${columns.length} cells are too many for a table; at most ${MOST_SAVED_CELLS} are. Fold it, or show what is linked only.`,
    );
  const found = new Map<number, [number, string][]>();
  for (let at = 0; at + 2 < cells.length; at += 3) {
    const [row, column, says] = [cells[at]!, cells[at + 1]!, words[cells[at + 2]!]];
    if (row >= rows.length || column >= columns.length || says === undefined)
      throw new CoombError('input-invalid', `Cell ${at / 3 + 1} stands outside of the matrix.`);
    const inRow = found.get(row);
    if (inRow) inRow.push([column, says]);
    else found.set(row, [[column, says]]);
  }
  return found;
}

/** A workbook of one sheet: both heads stay in sight, names of columns are written upwards, rows are grouped as their outline. */
export async function* writeMatrixBook(matrix: Matrix): AsyncGenerator<Uint8Array> {
  const found = cellsByRow(matrix);
  const stream = new PassThrough();
  const workbook = new ExcelJS.stream.xlsx.WorkbookWriter({ stream, useStyles: true });
  const writing = (async () => {
    const sheet = workbook.addWorksheet(sheetName(matrix.name), {
      views: [{ state: 'frozen', xSplit: HEADS, ySplit: HEADS }],
      properties: { outlineLevelRow: 1 },
    });
    sheet.columns = [{ width: 12 }, { width: 44 }, ...matrix.columns.map(() => ({ width: 4.5, style: { alignment: { horizontal: 'center' as const } } }))];
    for (const [at, part] of (['reference', 'title'] as const).entries()) {
      const row = sheet.addRow(['', '', ...matrix.columns.map((one) => one[part])]);
      row.height = at === 0 ? 60 : 120;
      row.eachCell((cell) => {
        cell.alignment = { textRotation: 90, vertical: 'bottom', horizontal: 'center' };
        cell.font = { bold: at === 0 };
      });
      row.commit();
    }
    for (const [at, { reference, title, depth }] of matrix.rows.entries()) {
      const row = sheet.addRow([reference, title]);
      for (const [column, says] of found.get(at) ?? []) row.getCell(column + HEADS + 1).value = /^\d+$/.test(says) ? Number(says) : says;
      row.getCell(2).alignment = { indent: Math.min(depth, 15) };
      row.outlineLevel = Math.min(depth, 7);
      row.commit();
      if (at % BLOCK === BLOCK - 1) await setImmediate();
    }
    sheet.commit();
    await workbook.commit();
  })();
  writing.catch((error) => stream.destroy(error));
  for await (const piece of stream) yield piece as Uint8Array;
  await writing;
}

export function writeMatrixCsv(matrix: Matrix): AsyncGenerator<string> {
  const found = cellsByRow(matrix);
  return writeCsvRows(
    (function* () {
      yield ['', '', ...matrix.columns.map(({ reference }) => reference)];
      yield ['', '', ...matrix.columns.map(({ title }) => title)];
      for (const [at, { reference, title }] of matrix.rows.entries()) {
        const cells = matrix.columns.map(() => '');
        for (const [column, says] of found.get(at) ?? []) cells[column] = says;
        yield [reference, title, ...cells];
      }
    })(),
  );
}
