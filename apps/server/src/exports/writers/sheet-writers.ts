import { PassThrough } from 'node:stream';
import { setImmediate } from 'node:timers/promises';
import { buildColumns, buildSheetRecipe, cellText, writeCsv } from '@coomb/formats';
import ExcelJS from 'exceljs';
import type { Scene } from '../export-scene.js';
import { inPieces, type Writer } from './writer.js';

const buildRecipe: Writer['buildRecipe'] = ({ scheme, name, kind, items }) => ({
  reads: 'sheet',
  recipe: buildSheetRecipe(buildColumns(scheme, items, cellText), sheetName(name), kind),
});

export const csvWriter: Writer = {
  id: 'csv',
  write: (scene) => ({ name: `${scene.name}.csv`, pieces: inPieces(writeCsv(rowsOf(scene))) }),
  buildRecipe,
};

export const xlsxWriter: Writer = {
  id: 'xlsx',
  write: (scene) => ({ name: `${scene.name}.xlsx`, pieces: writeWorkbook(scene.name, rowsOf(scene)) }),
  buildRecipe,
};

function* rowsOf({ scheme, items }: Scene): Generator<string[]> {
  const columns = buildColumns(scheme, items, cellText);
  yield columns.map((column) => column.name);
  for (const item of items) yield columns.map((column) => column.valueOf(item));
}

const sheetName = (name: string) => name.replace(/[\\/?*[\]:]/g, ' ').slice(0, 31);

/** Rows that columns take their widths from. */
const LOOKED_AT = 200;
/** Rows that are written before what they became is taken. */
const BLOCK = 500;

async function* writeWorkbook(name: string, rows: Iterator<string[]>): AsyncGenerator<Uint8Array> {
  const stream = new PassThrough();
  const workbook = new ExcelJS.stream.xlsx.WorkbookWriter({ stream, useStyles: true });
  const writing = (async () => {
    const first = take(rows, LOOKED_AT);
    const sheet = workbook.addWorksheet(sheetName(name), { views: [{ state: 'frozen', ySplit: 1 }] });
    sheet.columns = first[0]!.map((_, index) => ({
      width: Math.min(60, first.reduce((most, row) => Math.max(most, row[index]!.length), 8) + 2),
      style: { alignment: { wrapText: true, vertical: 'top' } },
    }));
    for (let block = first, at = 0; block.length > 0; block = take(rows, BLOCK), at++) {
      for (const [index, cells] of block.entries()) {
        const row = sheet.addRow(cells);
        if (at === 0 && index === 0) row.font = { bold: true };
        row.commit();
      }
      await setImmediate();
    }
    sheet.commit();
    await workbook.commit();
  })();
  writing.catch((error) => stream.destroy(error));
  for await (const piece of stream) yield piece as Uint8Array;
  await writing;
}

function take<T>(from: Iterator<T>, most: number): T[] {
  const taken: T[] = [];
  for (let next = taken.length < most ? from.next() : undefined; next && !next.done; next = taken.length < most ? from.next() : undefined)
    taken.push(next.value);
  return taken;
}
