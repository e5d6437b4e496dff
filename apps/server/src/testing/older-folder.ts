import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { PGlite } from '@electric-sql/pglite';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';

interface Dump {
  /** Changes of the tables that the program knew that made it. */
  migrations: number;
  tables: Record<string, unknown[]>;
}

const migrations = join(import.meta.dirname, '..', '..', 'migrations');

/**
 * Makes a database as an older program left it: its tables by its migrations, then the rows that it had stored, which are kept in `folders`.
 * Returns the folder, to begin a data folder with.
 */
export async function makeOlderDatabase(name: string): Promise<string> {
  const { migrations: count, tables } = JSON.parse(gunzipSync(readFileSync(join(import.meta.dirname, 'folders', `${name}.json.gz`))).toString()) as Dump;
  const work = mkdtempSync(join(tmpdir(), 'coomb-older-'));
  const [known, folder] = [join(work, 'migrations'), join(work, 'database')];
  cpSync(migrations, known, { recursive: true });
  const journal = join(known, 'meta', '_journal.json');
  const { entries, ...rest } = JSON.parse(readFileSync(journal, 'utf8')) as { entries: unknown[] };
  writeFileSync(journal, JSON.stringify({ ...rest, entries: entries.slice(0, count) }));
  const pg = await PGlite.create(folder);
  await migrate(drizzle({ client: pg }), { migrationsFolder: known });
  for (const [table, rows] of Object.entries(tables))
    await pg.query(`insert into "${table}" select * from jsonb_populate_recordset(null::"${table}", $1::jsonb)`, [JSON.stringify(rows)]);
  await pg.close();
  rmSync(known, { recursive: true });
  return folder;
}
