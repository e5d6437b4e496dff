import { PassThrough } from 'node:stream';
import { setImmediate } from 'node:timers/promises';
import ExcelJS from 'exceljs';

/** A name that a sheet may have. */
export const sheetName = (name: string): string => name.replace(/[\\/?*[\]:]/g, ' ').slice(0, 31);

/** Rows of texts, from memory or as they are read. */
export type Rows = Iterator<string[]> | AsyncIterator<string[]>;

/** Rows that columns take their widths from. */
const LOOKED_AT = 200;
/** Rows that are written before what they became is taken. */
const BLOCK = 500;

/** A workbook of one sheet, in pieces as it is written: the first row is its head and stays in sight. */
export async function* writeWorkbook(name: string, rows: Rows): AsyncGenerator<Uint8Array> {
  const stream = new PassThrough();
  const workbook = new ExcelJS.stream.xlsx.WorkbookWriter({ stream, useStyles: true });
  const writing = (async () => {
    const first = await take(rows, LOOKED_AT);
    const sheet = workbook.addWorksheet(sheetName(name), { views: [{ state: 'frozen', ySplit: 1 }] });
    sheet.columns = first[0]!.map((_, index) => ({
      width: Math.min(60, first.reduce((most, row) => Math.max(most, row[index]!.length), 8) + 2),
      style: { alignment: { wrapText: true, vertical: 'top' } },
    }));
    for (let block = first, at = 0; block.length > 0; block = await take(rows, BLOCK), at++) {
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

async function take(from: Rows, most: number): Promise<string[][]> {
  const taken: string[][] = [];
  while (taken.length < most) {
    const next = await from.next();
    if (next.done) break;
    taken.push(next.value);
  }
  return taken;
}
