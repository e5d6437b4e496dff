import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { PGlite } from '@electric-sql/pglite';
import { sql } from 'drizzle-orm';
import { drizzle, type PgliteDatabase } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import { version } from '../version.js';
import { copyTree } from './copy-tree.js';
import { DataFolderError, databaseFolder, describeDeadDatabase, prepareDataFolder, readLife } from './data-folder.js';
import { DatabaseClient } from './database-client.js';
import { DatabaseThread } from './database-thread.js';
import { DiskRoom } from './disk-room.js';
import { DatabaseDiedError } from './engine.js';
import { lockFolder } from './folder-lock.js';
import * as schema from './schema.js';

export type Database = PgliteDatabase<typeof schema>;
/** The database, or a transaction on it. Inside a transaction always the latter: there is one connection only. */
export type Connection = Pick<Database, 'select' | 'insert' | 'update' | 'delete' | 'execute'>;

export interface OpenDatabase {
  db: Database;
  client: DatabaseClient;
  thread: DatabaseThread;
  room: DiskRoom;
  folder: string;
  /** Life of the data in it: another after each restoring. */
  life: string;
  close: () => Promise<void>;
}

export interface DatabaseOptions {
  /** A database folder to begin a new one with a copy of. */
  template?: string | undefined;
  /** Where copies of the data folder lie. */
  copies?: string | undefined;
  /** Called when the database gave up; it answers nothing any more, and the message says why. */
  onDied?: ((message: string) => void) | undefined;
  /** Bytes until the disk is full: for tests. */
  diskBytes?: number | undefined;
  /** Says how many bytes are free: for tests. */
  askRoom?: ((folder: string) => Promise<number>) | undefined;
}

const migrationsFolder = fileURLToPath(new URL('../../migrations', import.meta.url));

/**
 * Opens (or makes) the database in a data folder and brings it up to date. Throws FolderInUseError when another process has it, and
 * DataFolderError when it is damaged, emptied, foreign, or from a newer program.
 */
export async function openDatabase(folder: string, { template, copies, onDied, diskBytes, askRoom }: DatabaseOptions = {}): Promise<OpenDatabase> {
  const unlock = await lockFolder(folder);
  let thread: DatabaseThread | undefined;
  try {
    await prepareDataFolder(folder, {
      program: version,
      now: new Date(),
      copies,
      // In a thread of its own, whose memory is given back: making a database takes several times what running one takes.
      make: async (making) => {
        if (template) copyTree(template, making);
        else await (await DatabaseThread.start({ dataDir: making }, () => {})).close();
      },
    });
    thread = await DatabaseThread.start({ dataDir: databaseFolder(folder), diskBytes }, (error) =>
      onDied?.(describeDeadDatabase(folder, error.message, copies)),
    );
    const room = new DiskRoom(folder, askRoom);
    const client = new DatabaseClient(thread, () => room.assertFor(0, 'This change'));
    // The client has what Drizzle asks of the library it was written for: query and transaction.
    // The client does what Drizzle asks of a PGlite, in a thread of its own.
    const db = drizzle({ client: client as unknown as PGlite, schema });
    await refuseNewer(db, folder);
    await migrate(db, { migrationsFolder });
    const open = thread;
    return {
      db,
      client,
      thread: open,
      room,
      folder,
      life: readLife(folder),
      close: async () => {
        await open.close();
        unlock();
      },
    };
  } catch (error) {
    await thread?.close();
    unlock();
    const died =
      error instanceof DatabaseDiedError ? error : (error as Error)?.cause instanceof DatabaseDiedError ? ((error as Error).cause as Error) : undefined;
    throw died ? new DataFolderError(describeDeadDatabase(folder, died.message, copies), { cause: error }) : error;
  }
}

/** A database that went through a change of its tables that this program does not know belongs to a newer one. */
async function refuseNewer(db: Database, folder: string): Promise<void> {
  const { entries } = JSON.parse(readFileSync(join(migrationsFolder, 'meta', '_journal.json'), 'utf8')) as { entries: { when: number }[] };
  const known = Math.max(...entries.map(({ when }) => when));
  const { rows } = await db.execute<{ present: boolean }>(sql`select to_regclass('drizzle.__drizzle_migrations') is not null as present`);
  if (!rows[0]?.present) return;
  const { rows: newest } = await db.execute<{ at: string | null }>(sql`select max(created_at)::text as at from drizzle.__drizzle_migrations`);
  if (Number(newest[0]?.at ?? 0) > known)
    throw new DataFolderError(`Coomb cannot start on ${folder}: a newer Coomb changed its tables. Use that version or a newer one. Nothing was changed.`);
}
