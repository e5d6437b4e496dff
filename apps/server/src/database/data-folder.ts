import { randomUUID } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { z } from 'zod';
import { syncPath, syncTree } from './copy-tree.js';

/** A data folder on which Coomb must not start. The message names the folder, what was found and what to do. */
export class DataFolderError extends Error {
  override readonly name = 'DataFolderError';
}

/** Version of how a data folder is laid out. */
export const folderFormat = 1;
const MARKER = 'coomb.json';
const CONTROL_BYTES = 8192;
const WAL_BYTES = 16 * 1024 * 1024;

/** `life` is another in every folder, and after each restoring: what was counted in one life of the data is counted anew in the next. */
const marker = z.object({ format: z.number().int(), madeBy: z.string(), madeAt: z.string(), life: z.string().optional() });

export const databaseFolder = (folder: string) => join(folder, 'database');

/** Where copies of a data folder lie unless said otherwise: beside it, so that whatever empties the folder leaves them. */
export const usualCopiesFolder = (folder: string) => `${folder.replace(/[/\\]+$/, '')}.copies`;

interface NewFolder {
  program: string;
  now: Date;
  /** Makes an empty database in a folder that does not exist yet. */
  make: (folder: string) => Promise<void>;
  /** Folder of copies: when it holds some and the data folder is empty, something was lost. */
  copies?: string | undefined;
}

/**
 * Makes sure that a folder holds a database that can be opened, and makes one in a folder that is new and empty. Throws DataFolderError for
 * a folder that was emptied, damaged, written by a newer program, or is not Coomb's.
 */
export async function prepareDataFolder(folder: string, options: NewFolder): Promise<'new' | 'present'> {
  mkdirSync(folder, { recursive: true });
  dropUnfinished(folder);
  const found = readdirSync(folder).filter((name) => !name.startsWith('.'));
  if (found.includes(MARKER)) checkMarker(folder);
  if (existsSync(databaseFolder(folder))) {
    checkDatabaseFolder(folder);
    if (!found.includes(MARKER)) writeMarker(folder, options);
    return 'present';
  }
  const advice = adviseRestore(folder, options.copies);
  if (found.includes(MARKER))
    throw new DataFolderError(`Coomb cannot start on ${folder}: its database is gone (there is ${list(found)}, but no folder "database"). ${advice}`);
  const foreign = found.filter((name) => name !== 'tray' && name !== 'in-use');
  if (foreign.length > 0)
    throw new DataFolderError(
      `Coomb cannot start on ${folder}: it holds ${list(foreign)}, and nothing of Coomb's. Nothing was changed. Name another folder with --data, or an empty one.`,
    );
  if (options.copies && countCopies(options.copies) > 0)
    throw new DataFolderError(
      `Coomb cannot start on ${folder}: it is empty, but ${countCopies(options.copies)} ${countCopies(options.copies) === 1 ? 'copy' : 'copies'} of what was in it lie in ${options.copies}. Is a disk missing? ${advice} To begin anew, move ${options.copies} away.`,
    );
  await makeDatabase(folder, options.make);
  writeMarker(folder, options);
  return 'new';
}

/** Throws DataFolderError when parts that every database has are missing or cut off: the database itself would tell less, or hang. */
function checkDatabaseFolder(folder: string): void {
  const inside = databaseFolder(folder);
  const faults: string[] = [];
  const size = (path: string) => statSync(join(inside, path), { throwIfNoEntry: false })?.size;
  if (readdirSync(inside).length === 0) faults.push('the folder "database" is empty');
  else {
    if (!size('PG_VERSION')) faults.push('database/PG_VERSION is missing');
    const control = size('global/pg_control');
    if (control === undefined) faults.push('database/global/pg_control is missing');
    else if (control !== CONTROL_BYTES) faults.push(`database/global/pg_control is ${control} bytes long instead of ${CONTROL_BYTES}`);
    if (!existsSync(join(inside, 'base'))) faults.push('database/base is missing');
    faults.push(...checkLog(join(inside, 'pg_wal')));
  }
  if (faults.length > 0)
    throw new DataFolderError(`Coomb cannot start on ${folder}: ${faults.join('; ')}. Nothing was changed. ${adviseRestore(folder, undefined)}`);
}

function checkLog(folder: string): string[] {
  if (!existsSync(folder)) return ['database/pg_wal is missing'];
  const segments = readdirSync(folder).filter((name) => /^[0-9A-F]{24}$/.test(name));
  if (segments.length === 0) return ['database/pg_wal holds no log'];
  return segments
    .map((name) => ({ name, bytes: statSync(join(folder, name)).size }))
    .filter(({ bytes }) => bytes !== WAL_BYTES)
    .map(({ name, bytes }) => `database/pg_wal/${name} is ${bytes} bytes long instead of ${WAL_BYTES}`);
}

/** What the database itself said when it could not be opened, in words that name the folder and what to do. */
export function describeDeadDatabase(folder: string, said: string, copies: string | undefined): string {
  return `Coomb cannot work on ${folder}: the database gave up: ${said}. ${adviseRestore(folder, copies)}`;
}

function adviseRestore(folder: string, copies: string | undefined): string {
  const where = copies ?? usualCopiesFolder(folder);
  const known = countCopies(where);
  return known > 0
    ? `Bring back a copy with "coomb restore --from ${where} --data ANOTHER-FOLDER", or the folder from your own backup.`
    : 'Bring the folder back from your backup, or restore a copy with "coomb restore --from FILE --data ANOTHER-FOLDER".';
}

export const copyName = /^coomb-\d{8}-\d{6}(?:-\d+)?\.tar\.gz$/;

function countCopies(folder: string): number {
  return existsSync(folder) ? readdirSync(folder).filter((name) => copyName.test(name)).length : 0;
}

function checkMarker(folder: string): void {
  let parsed: ReturnType<typeof marker.safeParse> | undefined;
  try {
    parsed = marker.safeParse(JSON.parse(readFileSync(join(folder, MARKER), 'utf8')));
  } catch {
    // Said below: what cannot be read says nothing of the format.
  }
  if (!parsed?.success)
    throw new DataFolderError(
      `Coomb cannot start on ${folder}: ${MARKER} cannot be read. If the rest of the folder is sound, remove ${MARKER} and start again; "coomb verify --data ${folder}" then tells.`,
    );
  if (parsed.data.format > folderFormat)
    throw new DataFolderError(
      `Coomb cannot start on ${folder}: a newer Coomb (${parsed.data.madeBy}) wrote it, in format ${parsed.data.format}; this one knows ${folderFormat}. Use that version or a newer one.`,
    );
}

/** The life of the data in a folder that Coomb started on. */
export function readLife(folder: string): string {
  const { life, madeAt } = marker.parse(JSON.parse(readFileSync(join(folder, MARKER), 'utf8')));
  return life ?? madeAt;
}

function writeMarker(folder: string, { program, now }: NewFolder): void {
  const file = join(folder, MARKER);
  writeFileSync(`${file}.making`, `${JSON.stringify({ format: folderFormat, madeBy: program, madeAt: now.toISOString(), life: randomUUID() }, null, 2)}\n`);
  syncPath(`${file}.making`);
  renameSync(`${file}.making`, file);
  syncPath(folder);
}

/** Made under another name and synced as a whole before it gets its own: a cut of power leaves either nothing or all of it. */
async function makeDatabase(folder: string, make: NewFolder['make']): Promise<void> {
  const making = `${databaseFolder(folder)}.making`;
  await make(making);
  placeFolder(making, databaseFolder(folder));
}

/** Syncs a folder that was made under another name, and gives it its own. */
export function placeFolder(made: string, name: string): void {
  syncTree(made);
  renameSync(made, name);
  syncPath(dirname(name));
}

function dropUnfinished(folder: string): void {
  for (const name of readdirSync(folder)) if (name.endsWith('.making')) rmSync(join(folder, name), { recursive: true, force: true });
}

function list(names: readonly string[]): string {
  const shown = names.slice(0, 3).map((name) => `"${name}"`);
  return names.length > 3 ? `${shown.join(', ')} and ${names.length - 3} more` : shown.join(' and ');
}
