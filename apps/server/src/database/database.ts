import { existsSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { PGlite } from '@electric-sql/pglite';
import { drizzle, type PgliteDatabase } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import { lockFolder } from './folder-lock.js';
import * as schema from './schema.js';

export type Database = PgliteDatabase<typeof schema>;
/** The database, or a transaction on it. Inside a transaction always the latter: there is one connection only. */
export type Connection = Pick<Database, 'select' | 'insert' | 'update' | 'delete' | 'execute'>;

export interface OpenDatabase {
  db: Database;
  pglite: PGlite;
  close: () => Promise<void>;
}

const migrationsFolder = fileURLToPath(new URL('../../migrations', import.meta.url));

/** Opens (or makes) the database in a data folder and brings it up to date. Throws FolderInUseError when another process has it. */
export async function openDatabase(folder: string, template?: Blob): Promise<OpenDatabase> {
  mkdirSync(folder, { recursive: true });
  const unlock = await lockFolder(folder);
  const dataDir = join(folder, 'database');
  const isNew = !existsSync(dataDir);
  const pglite = await PGlite.create({ dataDir, ...(isNew && template && { loadDataDir: template }) });
  const db = drizzle(pglite, { schema });
  await migrate(db, { migrationsFolder });
  return {
    db,
    pglite,
    close: async () => {
      await pglite.close();
      unlock();
    },
  };
}
