import type { Issue, ItemContent } from '@coomb/core';
import type { ResultsReading } from './results-reading.js';

/** What a file turned out to hold. */
export type FileContent = (ItemContent | { type: 'results'; results: ResultsReading }) & { issues: Issue[] };

/** What a person says of a file that it does not say itself. */
export interface ReadOptions {
  /** How separated values are written; guessed when unsaid. */
  dialect?: { separator: string; quote: string } | undefined;
}

export interface FileFormat {
  id: string;
  label: string;
  mediaType: string;
  extensions: string[];
  /** Whether the bytes may be of this format; the first format in the list that says yes reads the file. */
  fits: (bytes: Uint8Array, extension: string) => boolean;
  read: (bytes: Uint8Array, name: string, options: ReadOptions) => Promise<FileContent>;
}
