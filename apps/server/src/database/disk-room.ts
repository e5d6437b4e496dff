import { statfs } from 'node:fs/promises';
import { CoombError } from '@coomb/contract';

/** Bytes that must stay free: the database's log grows by pieces of 16 MB, and a full disk under it ends it. */
export const leastRoom = 200 * 1024 * 1024;
const ASKED_EVERY_MS = 1000;

/** How much room the disk of a data folder has. */
export class DiskRoom {
  private known: { at: number; free: number } | undefined;

  constructor(
    private readonly folder: string,
    private readonly ask: (folder: string) => Promise<number> = askDisk,
  ) {}

  /** Free bytes, at most a second old. */
  async free(): Promise<number> {
    const now = Date.now();
    if (!this.known || now - this.known.at > ASKED_EVERY_MS) this.known = { at: now, free: await this.ask(this.folder) };
    return this.known.free;
  }

  /** Refuses with `disk-full` what would leave less than the disk must keep free. */
  async assertFor(bytes: number, what: string): Promise<void> {
    const free = await this.free();
    if (free - bytes >= leastRoom) return;
    throw new CoombError(
      'disk-full',
      `${what} was refused: the disk of ${this.folder} has ${megabytes(free)} MB left${bytes > 0 ? `, it needs ${megabytes(bytes)}` : ''}, and ${megabytes(leastRoom)} must stay free. Nothing was changed. Make room, then try again.`,
    );
  }
}

async function askDisk(folder: string): Promise<number> {
  const { bavail, bsize } = await statfs(folder);
  return bavail * bsize;
}

const megabytes = (bytes: number) => Math.max(0, Math.floor(bytes / 1024 / 1024)).toLocaleString('en-GB');
