import { closeSync, constants, copyFileSync, fsyncSync, mkdirSync, openSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

/** Copies a folder with everything in it, by sharing blocks where the disk can. Gives how many files that were. */
export function copyTree(from: string, to: string): number {
  mkdirSync(to, { recursive: true, mode: 0o700 });
  let files = 0;
  for (const entry of readdirSync(from, { withFileTypes: true })) {
    const [source, target] = [join(from, entry.name), join(to, entry.name)];
    if (entry.isDirectory()) files += copyTree(source, target);
    else if (entry.isFile()) {
      copyFileSync(source, target, constants.COPYFILE_FICLONE);
      files++;
    }
  }
  return files;
}

/** Sees to it that a folder and everything in it lies on the disk itself. */
export function syncTree(folder: string): void {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) syncTree(path);
    else if (entry.isFile()) syncPath(path);
  }
  syncPath(folder);
}

/** Syncs one file or folder. Systems that cannot sync folders leave those out. */
export function syncPath(path: string): void {
  try {
    const handle = openSync(path, 'r');
    try {
      fsyncSync(handle);
    } finally {
      closeSync(handle);
    }
  } catch (error) {
    if (!['EPERM', 'EACCES', 'EISDIR', 'EINVAL'].includes((error as NodeJS.ErrnoException).code ?? '')) throw error;
  }
}
