import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { openDatabase } from '../database/database.js';
import { databaseFolder } from '../database/data-folder.js';
import { Engine } from '../database/engine.js';

const cache = join(process.cwd(), 'node_modules', '.cache', 'coomb');
/** A database without any table. */
export const templateFolder = join(cache, 'empty-database');
/** One with all tables, and nothing in them. */
export const readyFolder = join(cache, `ready-database-${hashOfMigrations()}`);

/** Makes both databases once for all server tests: opening a copy is far faster than making one. */
export default async function makeTemplates(): Promise<void> {
  mkdirSync(cache, { recursive: true });
  await make(templateFolder, async (making) => {
    await (await Engine.open(making)).close();
    return making;
  });
  await make(readyFolder, async (making) => {
    const { close } = await openDatabase(making, { template: templateFolder });
    await close();
    return databaseFolder(making);
  });
}

async function make(folder: string, fill: (making: string) => Promise<string>): Promise<void> {
  if (existsSync(folder)) return;
  const making = `${folder}.${process.pid}`;
  renameSync(await fill(making), folder);
  rmSync(making, { recursive: true, force: true });
}

/** Tables that change make another database. */
function hashOfMigrations(): string {
  const folder = fileURLToPath(new URL('../../migrations', import.meta.url));
  const hash = createHash('sha256');
  for (const name of readdirSync(folder)
    .filter((one) => one.endsWith('.sql'))
    .sort())
    hash.update(readFileSync(join(folder, name)));
  return hash.digest('hex').slice(0, 12);
}
