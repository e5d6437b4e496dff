import { buildColumns, buildSheetRecipe, cellText, writeCsv } from '@coomb/formats';
import ExcelJS from 'exceljs';
import type { Scene } from '../export-scene.js';
import type { Writer } from './writer.js';

const buildRecipe: Writer['buildRecipe'] = ({ scheme, name, kind, items }) => ({
  reads: 'sheet',
  recipe: buildSheetRecipe(buildColumns(scheme, items, cellText), sheetName(name), kind),
});

export const csvWriter: Writer = {
  id: 'csv',
  write: async (scene) => ({ name: `${scene.name}.csv`, bytes: Buffer.from(writeCsv(tableOf(scene))) }),
  buildRecipe,
};

export const xlsxWriter: Writer = {
  id: 'xlsx',
  write: async (scene) => ({ name: `${scene.name}.xlsx`, bytes: await writeWorkbook(scene.name, tableOf(scene)) }),
  buildRecipe,
};

function tableOf({ scheme, items }: Scene): string[][] {
  const columns = buildColumns(scheme, items, cellText);
  return [columns.map((column) => column.name), ...items.map((item) => columns.map((column) => column.valueOf(item)))];
}

const sheetName = (name: string) => name.replace(/[\\/?*[\]:]/g, ' ').slice(0, 31);

async function writeWorkbook(name: string, table: string[][]): Promise<Buffer> {
  const workbook = new ExcelJS.Workbook();
  const sheet = workbook.addWorksheet(sheetName(name), { views: [{ state: 'frozen', ySplit: 1 }] });
  sheet.addRows(table);
  sheet.getRow(1).font = { bold: true };
  table[0]!.forEach((_, index) => {
    const widest = table.slice(0, 200).reduce((most, row) => Math.max(most, row[index]!.length), 8);
    sheet.getColumn(index + 1).width = Math.min(60, widest + 2);
    sheet.getColumn(index + 1).alignment = { wrapText: true, vertical: 'top' };
  });
  return Buffer.from(await workbook.xlsx.writeBuffer());
}
