import { existsSync, mkdtempSync, rmSync, symlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import { afterAll, describe, expect, it } from 'vitest';
import { templateFolder } from '../testing/make-template.js';
import { openDatabase } from './database.js';
import { FolderInUseError, lockFolder } from './folder-lock.js';

const folders: string[] = [];
const folder = () => {
  const made = mkdtempSync(join(tmpdir(), 'coomb-database-'));
  folders.push(made);
  return made;
};
afterAll(() => folders.forEach((path) => rmSync(path, { recursive: true, force: true })));

describe('lockFolder', () => {
  it('lets one in at a time, and the next when it is given back', async () => {
    const path = folder();
    const unlock = await lockFolder(path);
    await expect(lockFolder(path)).rejects.toBeInstanceOf(FolderInUseError);
    unlock();
    (await lockFolder(path))();
  });

  it('knows a folder by what it is, not by the way to it', async () => {
    const path = folder();
    const way = join(folder(), 'link');
    symlinkSync(path, way);
    const unlock = await lockFolder(path);
    await expect(lockFolder(way)).rejects.toThrow(path);
    unlock();
  });

  it('keeps different folders apart', async () => {
    const first = await lockFolder(folder());
    const second = await lockFolder(folder());
    first();
    second();
  });
});

describe('openDatabase', () => {
  it('makes missing folders and all tables', async () => {
    const path = join(folder(), 'deep', 'down');
    const { db, close } = await openDatabase(path, { template: templateFolder });
    const { rows } = await db.execute(sql`select table_name as name from information_schema.tables where table_schema = 'public' order by 1`);
    expect(rows.map((row) => row.name)).toEqual([
      'baseline',
      'batch',
      'clipping',
      'collection',
      'collection_set',
      'drawing',
      'errand',
      'file',
      'file_part',
      'history',
      'item',
      'link',
      'person',
      'place',
      'project',
      'recipe',
      'refusal',
      'report',
      'result',
      'run',
      'saved_view',
      'scheme_part',
      'source',
      'usage',
      'waiting_end',
      'waiver',
    ]);
    await close();
    expect(existsSync(join(path, 'database'))).toBe(true);
  });

  it('finds what was there before, and runs no migration twice', async () => {
    const path = folder();
    const first = await openDatabase(path, { template: templateFolder });
    await first.db.execute(sql`insert into project (id, name, seq, created_at) values ('01890000-0000-7000-8000-000000000001', 'Kept', 0, now())`);
    await first.close();
    const second = await openDatabase(path);
    const { rows } = await second.db.execute(sql`select name from project`);
    expect(rows).toEqual([{ name: 'Kept' }]);
    await second.close();
  });

  it('refuses a second opening without touching the first', async () => {
    const path = folder();
    const { db, close } = await openDatabase(path, { template: templateFolder });
    await expect(openDatabase(path)).rejects.toThrow('Use that one, stop it, or name another folder');
    expect((await db.execute(sql`select 1 as one`)).rows).toEqual([{ one: 1 }]);
    await close();
  });
});
