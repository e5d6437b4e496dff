import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';

export const templateFile = join(process.cwd(), 'node_modules', '.cache', 'coomb', 'empty-database.tar');

/** Makes an empty database once for all server tests: opening a copy is far faster than making one. */
export default async function makeTemplate(): Promise<void> {
  if (existsSync(templateFile)) return;
  const database = await PGlite.create();
  const dump = await database.dumpDataDir('none');
  mkdirSync(join(templateFile, '..'), { recursive: true });
  writeFileSync(templateFile, Buffer.from(await dump.arrayBuffer()));
  await database.close();
}
