import { createHash } from 'node:crypto';
import { mkdirSync, realpathSync, openSync, closeSync, writeSync, unlinkSync, readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:net';
import { join } from 'node:path';

export class FolderInUseError extends Error {
  override readonly name = 'FolderInUseError';
}

/**
 * Takes a data folder for this process alone; a second process on it would corrupt the database in silence.
 * On Linux an abstract socket named by the folder's real path: the kernel frees it at once however the process ends.
 * Elsewhere an exclusive file with the process id. Throws FolderInUseError.
 */
export async function lockFolder(folder: string): Promise<() => void> {
  mkdirSync(folder, { recursive: true });
  const path = realpathSync(folder);
  const taken = () => new FolderInUseError(`Coomb is already running on ${path}. Use that one, stop it, or name another folder with --data.`);
  return process.platform === 'linux' ? lockBySocket(path, taken) : lockByFile(path, taken);
}

async function lockBySocket(path: string, taken: () => Error): Promise<() => void> {
  const name = `\0coomb-${createHash('sha256').update(path).digest('hex')}`;
  const server: Server = createServer((socket) => socket.destroy());
  await new Promise<void>((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) => reject(error.code === 'EADDRINUSE' ? taken() : error));
    server.listen(name, resolve);
  });
  server.unref();
  return () => server.close();
}

function lockByFile(path: string, taken: () => Error): () => void {
  const file = join(path, 'in-use');
  const take = () => {
    const handle = openSync(file, 'wx');
    writeSync(handle, String(process.pid));
    closeSync(handle);
  };
  try {
    take();
  } catch {
    if (isRunning(Number(readFileSync(file, 'utf8')))) throw taken();
    unlinkSync(file);
    take();
  }
  return () => unlinkSync(file);
}

function isRunning(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}
