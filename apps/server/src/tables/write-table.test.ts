import ExcelJS from 'exceljs';
import { describe, expect, it } from 'vitest';
import { type TableCell, type TableColumn, writeTable } from './write-table.js';

const columns: TableColumn[] = [
  { name: 'Reference', type: 'words', width: 92 },
  { name: 'Count', type: 'number', width: 96 },
  { name: 'When', type: 'moment', width: 104 },
];

async function* given(rows: TableCell[][]): AsyncGenerator<TableCell[]> {
  yield* rows;
}

async function read(rows: TableCell[][], heads = columns, count = rows.length) {
  const pieces: Uint8Array[] = [];
  for await (const piece of writeTable('A: table/of [things]', heads, given(rows), count)) pieces.push(piece);
  const workbook = new ExcelJS.Workbook();
  await workbook.xlsx.load(Buffer.concat(pieces) as unknown as ArrayBuffer);
  return workbook.worksheets[0]!;
}

const tableOf = (sheet: ExcelJS.Worksheet) =>
  (sheet.getTable('Rows') as unknown as { table: { tableRef: string; columns: { name: string }[] } } | undefined)?.table;

describe('a table of a workbook', () => {
  it('has its heads in sight, numbers as numbers, days as days, and words that lead somewhere', async () => {
    const sheet = await read([
      [{ text: 'REQ-1', hyperlink: 'http://weir.example/p/1?item=REQ-1' }, 3, new Date('2026-11-28T00:00:00Z')],
      ['REQ-2', null, new Date('2026-11-28T10:30:00Z')],
    ]);
    expect(sheet.name).toBe('A  table of  things ');
    expect(sheet.views[0]).toMatchObject({ state: 'frozen', ySplit: 1 });
    expect(sheet.getCell('A2').value).toEqual({ text: 'REQ-1', hyperlink: 'http://weir.example/p/1?item=REQ-1' });
    expect([sheet.getCell('B2').value, sheet.getCell('B3').value]).toEqual([3, null]);
    expect([sheet.getCell('C2').numFmt, sheet.getCell('C3').numFmt]).toEqual(['yyyy-mm-dd', 'yyyy-mm-dd hh:mm']);
    expect((sheet.getCell('C3').value as Date).toISOString()).toBe('2026-11-28T10:30:00.000Z');
    expect(tableOf(sheet)).toMatchObject({ tableRef: 'A1:C3' });
  });

  it('opens without any column, too', async () => {
    const sheet = await read([[], []], [], 2);
    expect([sheet.name, sheet.columnCount, tableOf(sheet)]).toEqual(['A  table of  things ', 0, undefined]);
  });

  it('tells heads apart that say the same, whatever their case, and names those that say nothing', async () => {
    const heads = ['Title', 'title', ' ', 'Title 2', ''].map((name): TableColumn => ({ name, type: 'words', width: 100 }));
    const sheet = await read([['a', 'b', 'c', 'd', 'e']], heads);
    expect((sheet.getRow(1).values as string[]).slice(1)).toEqual(['Title', 'title 2', 'Column', 'Title 2 2', 'Column 2']);
    expect(tableOf(sheet)!.columns.map(({ name }) => name)).toHaveLength(5);
  });

  it('keeps what a cell cannot hold: long texts are cut and say so, days before workbooks know any are words', async () => {
    const sheet = await read([['x'.repeat(40_000), 1, new Date('1812-06-24T00:00:00Z')]]);
    const text = String(sheet.getCell('A2').value);
    expect([text.length <= 32_767, text.endsWith('… (cut)')]).toEqual([true, true]);
    expect(sheet.getCell('C2').value).toBe('1812-06-24');
  });

  it('is written row by row under a filter where it is large, and leads to addresses as far as a sheet can', async () => {
    const rows = Array.from({ length: 70_000 }, (_, at): TableCell[] => [{ text: `REQ-${at}`, hyperlink: `http://weir.example/?item=${at}` }, at, null]);
    const sheet = await read(rows);
    expect(tableOf(sheet)).toBeUndefined();
    expect(sheet.autoFilter).toBe('A1:C70001');
    expect(sheet.getCell('A2').value).toMatchObject({ text: 'REQ-0' });
    expect(sheet.getCell('A70001').value).toBe('REQ-69999');
    expect(sheet.getCell('B70001').value).toBe(69_999);
  });

  it('is a head alone where there is no row', async () => {
    const sheet = await read([]);
    expect((sheet.getRow(1).values as string[]).slice(1)).toEqual(['Reference', 'Count', 'When']);
    expect(tableOf(sheet)).toBeUndefined();
  });

  it('says what went wrong while rows were read', async () => {
    async function* broken(): AsyncGenerator<TableCell[]> {
      yield ['REQ-1', 1, null];
      throw new Error('the rows are gone');
    }
    const run = async () => {
      for await (const _ of writeTable('Broken', columns, broken(), 2)) void _;
    };
    await expect(run()).rejects.toThrow('the rows are gone');
  });
});
