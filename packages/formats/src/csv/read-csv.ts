import { isUtf8 } from 'node:buffer';
import Papa from 'papaparse';
import type { Issue, SourceSheet } from '@coomb/core';
import { ReadError } from '../read-error.js';
import { type CsvDialect, guessDialect, quoteNames, separatorNames } from './guess-dialect.js';

/** Bytes by which UTF-16 is told that carries no mark: every other byte of Latin text is zero. */
const LOOKED_AT = 1000;

/** Text in UTF-8 (with or without mark), UTF-16 by its mark or by its zeros, else Windows-1252. */
export function decodeText(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  const unmarked = findUnmarkedUtf16(bytes);
  if (unmarked) return new TextDecoder(unmarked).decode(bytes);
  // Asked for a stream it decodes Windows-1252 as it is; asked for all at once this platform takes it for Latin-1.
  if (!isUtf8(bytes)) return new TextDecoder('windows-1252').decode(bytes, { stream: true });
  const text = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length).toString('utf8');
  return text.startsWith('\uFEFF') ? text.slice(1) : text;
}

function findUnmarkedUtf16(bytes: Uint8Array): string | undefined {
  const zeros = [0, 0];
  const size = Math.min(bytes.length, LOOKED_AT);
  for (let at = 0; at < size; at++) if (bytes[at] === 0) zeros[at % 2]!++;
  const [even, odd] = zeros as [number, number];
  if (odd * 2 > size * 0.8 && even === 0) return 'utf-16le';
  return even * 2 > size * 0.8 && odd === 0 ? 'utf-16be' : undefined;
}

const MOST_ROWS = 400_000;
const MOST_CELLS = 1_500_000;
/** Spreadsheets have 16,384 columns; signs in quoted values are counted along. */
const WIDEST = 65_536;
/** No value of a register is as long. */
const LONGEST_VALUE = 2_000_000;

/** Refuses what would fill the memory with rows and columns that nobody wrote. Looks at signs only, so quoted ones are counted too. */
function checkShape(text: string): void {
  const tooMany = (what: string) => new ReadError('sheet-too-large', `The file holds more than ${what} and was refused. Divide it and hand in the parts.`);
  let rows = 0;
  for (let at = 0; at < text.length; rows++) {
    const end = text.indexOf('\n', at);
    const line = end < 0 ? text.length : end;
    // Only a long line can hold so many columns.
    if (line - at > WIDEST && countSigns(text, at, line) > WIDEST)
      throw new ReadError('sheet-too-large', `Line ${rows + 1} parts more than ${WIDEST.toLocaleString('en-GB')} columns; the file was refused.`);
    at = line + 1;
  }
  const open = rows > MOST_ROWS ? findLongQuote(text) : undefined;
  if (open !== undefined) throw tooLong(text, open);
  if (rows > MOST_ROWS) throw tooMany(`${MOST_ROWS.toLocaleString('en-GB')} lines`);
  if (text.length > MOST_CELLS && countSigns(text, 0, text.length) > MOST_CELLS) throw tooMany(`${MOST_CELLS.toLocaleString('en-GB')} values`);
}

/** How often values are parted, by any of the signs that may do it, and by line ends of any sort. */
function countSigns(text: string, from: number, to: number): number {
  let count = 0;
  for (let at = from; at < to; at++) {
    const code = text.charCodeAt(at);
    if (code === 44 || code === 59 || code === 9 || code === 124 || code === 13) count++;
  }
  return count;
}

/** A quotation mark that is not closed makes one value of all that follows. */
function checkValues(rows: readonly (readonly string[])[], text: string): void {
  for (const row of rows) for (const value of row) if (value.length > LONGEST_VALUE) throw tooLong(text, text.indexOf(value.slice(0, 1000)));
}

/** Where a quotation begins that goes on for too long. */
function findLongQuote(text: string): number | undefined {
  for (let at = text.indexOf('"'); at >= 0; ) {
    const end = text.indexOf('"', at + 1);
    if ((end < 0 ? text.length : end) - at > LONGEST_VALUE) return at;
    at = end < 0 ? -1 : text.indexOf('"', end + 1);
  }
  return undefined;
}

function tooLong(text: string, at: number): ReadError {
  return new ReadError(
    'csv-value-long',
    `A value near line ${lineOf(text, at)} goes on for more than ${LONGEST_VALUE.toLocaleString('en-GB')} characters. A quotation mark at its end is probably missing.`,
  );
}

function lineOf(text: string, at: number): number {
  return text.slice(0, at).split(/\r\n|\r|\n/).length;
}

/**
 * Reads comma, semicolon, tab or bar separated values (RFC 4180 and its habits). Separator and quotation mark are guessed unless they are
 * given, and named where a row does not fit them. Throws ReadError for empty or binary files.
 */
export function readCsv(bytes: Uint8Array, name: string, given?: CsvDialect): { sheets: SourceSheet[]; issues: Issue[] } {
  if (bytes.length === 0) throw new ReadError('file-empty', 'The file is empty.');
  const text = decodeText(bytes);
  if (text.trim() === '') throw new ReadError('file-empty', 'The file holds nothing but blanks or a byte order mark.');
  if (text.slice(0, 4000).includes('\0')) throw new ReadError('not-text', 'The file is not a text file of separated values.');
  checkShape(text);
  const dialect = given ?? guessDialect(text);
  const parsed = Papa.parse<string[]>(text, { delimiter: dialect.separator, quoteChar: dialect.quote, escapeChar: dialect.quote, skipEmptyLines: false });
  checkValues(parsed.data, text);
  const rows = withoutBlankEnd(parsed.data);
  return {
    sheets: [{ name: name.replace(/\.[^.]*$/, ''), rows, dialect }],
    issues: [...findSyntaxIssues(parsed.errors, dialect), ...findRagged(rows, dialect)],
  };
}

/** Rows after the last that holds something are none. */
function withoutBlankEnd(rows: string[][]): string[][] {
  let end = rows.length;
  while (end > 0 && rows[end - 1]!.every((cell) => cell.trim() === '')) end--;
  return rows.slice(0, end);
}

const describeDialect = ({ separator, quote }: CsvDialect) =>
  `read as parted by ${separatorNames[separator] ?? separator} and quoted by ${quoteNames[quote] ?? quote}`;

function findSyntaxIssues(errors: readonly Papa.ParseError[], dialect: CsvDialect): Issue[] {
  return errors
    .filter((error) => error.code !== 'UndetectableDelimiter')
    .slice(0, 100)
    .map((error) => ({
      severity: 'warning',
      code: 'csv-syntax',
      at: `line ${(error.row ?? 0) + 1}`,
      message: `${error.message} (${describeDialect(dialect)}); the row was read as far as possible. If another separator or mark is meant, choose it`,
    }));
}

/** More values than column names in many rows is mostly the wrong separator, or a separator that nobody quoted. */
function findRagged(rows: readonly (readonly string[])[], dialect: CsvDialect): Issue[] {
  const width = rows[0]?.length ?? 0;
  const wider = rows.findIndex((row) => row.length > width && row.slice(width).some((cell) => cell.trim()));
  const count = rows.filter((row) => row.length > width && row.slice(width).some((cell) => cell.trim())).length;
  if (wider < 0 || width < 2 || count * 5 < rows.length) return [];
  return [
    {
      severity: 'warning',
      code: 'csv-ragged',
      at: `line ${wider + 1}`,
      message: `${count} of ${rows.length} rows hold more values than there are column names (${describeDialect(dialect)}). If another separator or mark is meant, choose it`,
    },
  ];
}
