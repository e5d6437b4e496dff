import { isUtf8 } from 'node:buffer';
import Papa from 'papaparse';
import type { Issue, SourceSheet } from '@coomb/core';
import { ReadError } from '../read-error.js';

/** Bytes by which UTF-16 is told that carries no mark: every other byte of Latin text is zero. */
const LOOKED_AT = 1000;

/** Text in UTF-8 (with or without mark), UTF-16 by its mark or by its zeros, else Windows-1252. */
export function decodeText(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  const unmarked = findUnmarkedUtf16(bytes);
  if (unmarked) return new TextDecoder(unmarked).decode(bytes);
  if (!isUtf8(bytes)) return new TextDecoder('windows-1252').decode(bytes);
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
