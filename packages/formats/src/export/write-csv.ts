import Papa from 'papaparse';

/** Comma-separated values with a byte order mark, as spreadsheets expect. Cells that a spreadsheet would run as a formula get an apostrophe. */
export function* writeCsv(rows: Iterable<readonly string[]>): Generator<string> {
  yield '\uFEFF';
  for (const row of rows) yield writeCsvRow(row);
}

/** One row of such a file, with the end of its line. */
export const writeCsvRow = (row: readonly string[]): string => `${Papa.unparse([row.map(guardFormula)], { newline: '\r\n' })}\r\n`;

export function guardFormula(cell: string): string {
  return /^[=+\-@\t\r]/.test(cell) || /^'[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell;
}
