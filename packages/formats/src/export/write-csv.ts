import Papa from 'papaparse';

/** Comma-separated values with a byte order mark, as spreadsheets expect. Cells that a spreadsheet would run as a formula get an apostrophe. */
export function* writeCsv(rows: Iterable<readonly string[]>): Generator<string> {
  yield '\uFEFF';
  for (const row of rows) yield `${Papa.unparse([row.map(guardFormula)], { newline: '\r\n' })}\r\n`;
}

export function guardFormula(cell: string): string {
  return /^[=+\-@\t\r]/.test(cell) || /^'[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell;
}
