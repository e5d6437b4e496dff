import { CoombError } from '@coomb/contract';
import type { Request, Response } from 'express';
import multer from 'multer';

const mostBytes = 200 * 1024 * 1024;
/** What stands around a file while it is on its way. */
const WRAPPING = 10_000;
/** Files that may arrive at once: each holds a connection and a piece of the disk. */
const MOST_AT_ONCE = 6;

export interface Received {
  name: string;
  path: string;
}

/** Takes files in as they come, onto the disk: none of them is ever held whole in memory. */
export class FileReceiver {
  private arriving = 0;
  private readonly take: ReturnType<ReturnType<typeof multer>['single']>;

  constructor(folder: string) {
    this.take = multer({ dest: folder, limits: { fileSize: mostBytes, files: 1, fields: 10, fieldSize: 10_000 } }).single('file');
  }

  /** Refuses more files at once than a few, one that is too large, and a request without any. */
  async receive(request: Request, response: Response): Promise<Received> {
    if (this.arriving >= MOST_AT_ONCE)
      throw new CoombError('too-many', `${MOST_AT_ONCE} files are arriving already. Hand this one in again when one of them has arrived.`);
    this.arriving++;
    try {
      await new Promise<void>((resolve, reject) => this.take(request, response, (error?: unknown) => (error ? reject(asRefusal(error)) : resolve())));
    } finally {
      this.arriving--;
    }
    const { file } = request as Request & { file?: { originalname: string; path: string } };
    if (!file) throw new CoombError('input-invalid', 'No file came along. Choose a file and try again.');
    return { name: Buffer.from(file.originalname, 'latin1').toString('utf8').slice(0, 200), path: file.path };
  }
}

/** Refuses a file that says it is too large, before it has come. */
export function assertSize(announced: number): void {
  if (announced > mostBytes + WRAPPING) throw tooLarge();
}

function tooLarge(): CoombError {
  return new CoombError('too-large', `The file is larger than Coomb takes (${mostBytes / 1024 / 1024} MB). Divide it and hand in the parts.`);
}

function asRefusal(error: unknown): unknown {
  if ((error as NodeJS.ErrnoException).code === 'ENOSPC')
    return new CoombError('disk-full', 'The disk is full. The file was not kept. Make room, then try again.');
  if (!(error instanceof multer.MulterError))
    return error instanceof Error ? new CoombError('input-invalid', `The file did not arrive whole: ${error.message}`) : error;
  return error.code === 'LIMIT_FILE_SIZE'
    ? tooLarge()
    : new CoombError('input-invalid', `The file did not arrive: ${error.message}. Send one file, as the form field "file".`);
}
