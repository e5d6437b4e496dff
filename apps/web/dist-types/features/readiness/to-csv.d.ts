/** Comma-separated values (RFC 4180) that no spreadsheet takes for formulas: such cells get a leading apostrophe. */
export declare function toCsv(rows: readonly (readonly string[])[]): string;
