import ExcelJS from 'exceljs';
import { buildTests } from './tests.js';

/** Test cases as a workbook: a title line above the column names, as people keep them. */
export async function makeTests(): Promise<Buffer> {
  const workbook = new ExcelJS.Workbook();
  workbook.created = new Date('2026-09-01T08:00:00Z');
  const sheet = workbook.addWorksheet('Test cases');
  sheet.addRow(['Larkbeck Weir: test cases, issue 2']);
  sheet.addRow([]);
  sheet.addRow(['ID', 'Title', 'Steps', 'Expected outcome', 'Kind of test', 'Tags', 'Verifies']);
  for (const test of buildTests()) sheet.addRow([test.reference, test.title, test.steps, test.expected, test.kind, test.tags, test.verifies]);
  sheet.getRow(3).font = { bold: true };
  sheet.columns.forEach((column, index) => {
    column.width = [10, 34, 60, 60, 14, 14, 28][index] ?? 12;
  });
  workbook.addWorksheet('Notes').addRow(['Rig tests run at the maker, site tests at Larkbeck and Otterby.']);
  return Buffer.from(await workbook.xlsx.writeBuffer());
}
