import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { PassThrough } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { create, extract, type Pack } from 'tar';
import { z } from 'zod';
import { copyName, DataFolderError, databaseFolder, folderFormat, placeFolder } from '../database/data-folder.js';
import { syncPath } from '../database/copy-tree.js';
import { lockFolder } from '../database/folder-lock.js';
import { version } from '../version.js';

const MANIFEST = 'coomb-backup.json';

const manifestSchema = z.object({
  format: z.number().int(),
  madeBy: z.string(),
  madeAt: z.string(),
  files: z.array(z.object({ path: z.string(), bytes: z.number(), sha256: z.string() })),
});
type Manifest = z.infer<typeof manifestSchema>;

/** A file that is no backup, or a damaged one. */
export class BackupError extends Error {
  override readonly name = 'BackupError';
}

/**
 * Writes the manifest into a folder that holds a copy of `database` (and `tray`), and gives all of it as a packed stream: gzip of tar, which
 * usual programs open too.
 */
export async function packFolder(folder: string, now: Date): Promise<NodeJS.ReadableStream> {
  const manifest: Manifest = { format: folderFormat, madeBy: version, madeAt: now.toISOString(), files: await describeFiles(folder) };
  writeFileSync(join(folder, MANIFEST), JSON.stringify(manifest));
  return toStream(create({ gzip: { level: 6 }, cwd: folder, portable: true }, [MANIFEST, ...readdirSync(folder).filter((name) => name !== MANIFEST)]));
}

/** What goes wrong while packing ends the stream; when nobody reads it any more, nobody needs to know. */
function toStream(pack: Pack): NodeJS.ReadableStream {
  const stream = new PassThrough();
  stream.on('error', () => {});
  pack.on('error', (error) => stream.destroy(error as Error));
  // The packer declares streams of an older kind.
  pack.pipe(stream as never);
  return stream;
}

/** Writes a stream under another name and gives the file its own when all of it lies on the disk. */
export async function writeWhole(stream: NodeJS.ReadableStream, file: string): Promise<void> {
  const making = `${file}.making`;
  mkdirSync(dirname(file), { recursive: true });
  try {
    await pipeline(stream, createWriteStream(making));
    syncPath(making);
    renameSync(making, file);
    syncPath(dirname(file));
  } finally {
    rmSync(making, { force: true });
  }
}

/** The newest copy in a folder of copies, or the file itself. Throws BackupError when there is none. */
export function findBackup(path: string): string {
  if (!existsSync(path)) throw new BackupError(`There is nothing at ${path}.`);
  if (!statSync(path).isDirectory()) return path;
  const newest = readdirSync(path)
    .filter((name) => copyName.test(name))
    .sort()
    .at(-1);
  if (!newest) throw new BackupError(`There is no copy of Coomb's in ${path}.`);
  return join(path, newest);
}

/**
 * Unpacks a backup into a data folder that is missing or empty, after every file of it was compared with what the manifest says. Throws
 * BackupError for a file that is damaged, cut off, of a newer program or no backup, and DataFolderError for a folder that holds something.
 */
export async function restoreBackup(file: string, folder: string): Promise<Pick<Manifest, 'madeAt' | 'madeBy'> & { files: number }> {
  if (existsSync(folder) && readdirSync(folder).length > 0)
    throw new DataFolderError(
      `${folder} is not empty. A backup is restored into a folder that is missing or empty: name another with --data, or move that one away.`,
    );
  const unlock = await lockFolder(folder);
  const making = join(folder, 'restored.making');
  try {
    mkdirSync(making);
    await extract({
      file,
      cwd: making,
      strict: true,
      preservePaths: false,
      filter: (_, entry) => !('type' in entry) || entry.type === 'File' || entry.type === 'Directory',
    }).catch((error) => {
      throw new BackupError(`${file} cannot be unpacked: ${(error as Error).message}. It is no backup of Coomb, or it is cut off.`);
    });
    const manifest = readManifest(file, making);
    await compareFiles(file, making, manifest);
    rmSync(join(making, MANIFEST));
    // The marker of the folder is written when Coomb first starts on it.
    for (const name of readdirSync(making).filter((one) => one !== 'database')) renameSync(join(making, name), join(folder, name));
    placeFolder(join(making, 'database'), databaseFolder(folder));
    return { madeAt: manifest.madeAt, madeBy: manifest.madeBy, files: manifest.files.length };
  } finally {
    rmSync(making, { recursive: true, force: true });
    unlock();
  }
}

function readManifest(file: string, folder: string): Manifest {
  const path = join(folder, MANIFEST);
  if (!existsSync(path)) throw new BackupError(`${file} is no backup of Coomb: it holds no ${MANIFEST}.`);
  const parsed = manifestSchema.safeParse(JSON.parse(readFileSync(path, 'utf8')));
  if (!parsed.success) throw new BackupError(`${file} is damaged: its ${MANIFEST} cannot be read.`);
  if (parsed.data.format > folderFormat)
    throw new BackupError(`${file} was made by a newer Coomb (${parsed.data.madeBy}), in format ${parsed.data.format}; this one knows ${folderFormat}.`);
  return parsed.data;
}

async function compareFiles(file: string, folder: string, manifest: Manifest): Promise<void> {
  const found = new Map((await describeFiles(folder)).map((one) => [one.path, one]));
  found.delete(MANIFEST);
  for (const said of manifest.files) {
    const one = found.get(said.path);
    if (!one) throw new BackupError(`${file} is damaged: ${said.path} is missing.`);
    if (one.bytes !== said.bytes || one.sha256 !== said.sha256) throw new BackupError(`${file} is damaged: ${said.path} is not what was put in.`);
    found.delete(said.path);
  }
  const [extra] = found.keys();
  if (extra !== undefined) throw new BackupError(`${file} holds ${extra}, which its ${MANIFEST} does not name.`);
}

async function describeFiles(folder: string, below = ''): Promise<Manifest['files']> {
  const files: Manifest['files'] = [];
  for (const entry of readdirSync(join(folder, below), { withFileTypes: true })) {
    const path = below ? `${below}/${entry.name}` : entry.name;
    if (entry.isDirectory()) files.push(...(await describeFiles(folder, path)));
    else if (entry.isFile()) {
      const hash = createHash('sha256');
      await pipeline(createReadStream(join(folder, path)), hash);
      files.push({ path, bytes: statSync(join(folder, path)).size, sha256: hash.digest('hex') });
    }
  }
  return files;
}
