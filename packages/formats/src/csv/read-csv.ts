import Papa from 'papaparse';
import type { Issue, SourceSheet } from '@coomb/core';
import { ReadError } from '../read-error.js';

/** Text in UTF-8 (with or without mark), UTF-16 by its mark, else Windows-1252. */
export function decodeText(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

/** Reads comma, semicolon, tab or bar separated values (RFC 4180 and its habits). Throws ReadError for empty or binary files. */
export function readCsv(bytes: Uint8Array, name: string): { sheets: SourceSheet[]; issues: Issue[] } {
  if (bytes.length === 0) throw new ReadError('file-empty', 'The file is empty.');
  const text = decodeText(bytes);
  if (text.slice(0, 4000).includes('\0')) throw new ReadError('not-text', 'The file is not a text file of separated values.');
  const parsed = Papa.parse<string[]>(text, { delimitersToGuess: [',', ';', '\t', '|'], skipEmptyLines: false });
  const issues: Issue[] = parsed.errors
    .filter((error) => error.code !== 'UndetectableDelimiter')
    .slice(0, 100)
    .map((error) => ({
      severity: 'warning',
      code: 'csv-syntax',
      at: `line ${(error.row ?? 0) + 1}`,
      message: `${error.message}; the row was read as far as possible`,
    }));
  return { sheets: [{ name: name.replace(/\.[^.]*$/, ''), rows: parsed.data }], issues };
}
