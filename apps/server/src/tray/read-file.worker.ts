import { readFileSync } from 'node:fs';
import { type FileContent, readFileContent, ReadError, type ReadOptions } from '@coomb/formats';

export interface ReadTask {
  name: string;
  /** A path, or bytes. */
  from: string | Uint8Array;
  options: ReadOptions;
}

export type ReadAnswer = { format: string; content: FileContent } | { refused: { code: string; message: string } };

/** Reads a file away from the thread that answers people. A refusal comes back as a value: errors lose their kind between threads. */
export default async function readInWorker({ name, from, options }: ReadTask): Promise<ReadAnswer> {
  try {
    const { format, content } = await readFileContent(name, typeof from === 'string' ? readFileSync(from) : from, options);
    return { format: format.id, content };
  } catch (error) {
    if (error instanceof ReadError) return { refused: { code: error.code, message: error.message } };
    throw error;
  }
}
