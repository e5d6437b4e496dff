import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { templateFolder } from '../testing/make-template.js';
import { copyTree } from './copy-tree.js';
import { openDatabase } from './database.js';

/** What happens on a data folder that something has happened to. Each is told with the folder, what was found, and what to do; nothing hangs. */
describe('a data folder', () => {
  const root = mkdtempSync(join(tmpdir(), 'coomb-damage-'));
  const sound = join(root, 'sound');
  let number = 0;
  /** A copy of a sound folder with something done to it. */
  const damaged = (how: (folder: string) => void): string => {
    const folder = join(root, String(number++));
    copyTree(sound, folder);
    how(folder);
    return folder;
  };
  const refusal = async (folder: string, copies?: string): Promise<string> => {
    const before = readdirSync(folder).sort();
    const error = await openDatabase(folder, { template: templateFolder, copies }).then(
      async (opened) => {
        await opened.close();
        throw new Error('It started');
      },
      (cause: Error) => cause,
    );
    expect([error.name, error.message]).toEqual(['DataFolderError', expect.stringContaining(folder)]);
    expect(readdirSync(folder).sort()).toEqual(before);
    return error.message;
  };
  const walFile = (folder: string) => {
    const wal = join(folder, 'database', 'pg_wal');
    return join(wal, readdirSync(wal).find((name) => /^[0-9A-F]{24}$/.test(name))!);
  };

  beforeAll(async () => {
    const { db, close } = await openDatabase(sound, { template: templateFolder });
    await db.execute(sql`insert into project (id, name, seq, created_at) values ('01890000-0000-7000-8000-000000000001', 'Kept', 0, now())`);
    await close();
  });
  afterAll(() => rmSync(root, { recursive: true, force: true }));

  it.each<[string, (folder: string) => void, RegExp]>([
    ['a control file cut off', (f) => truncateSync(join(f, 'database/global/pg_control'), 100), /pg_control is 100 bytes long instead of 8192.*restore/],
    ['no control file', (f) => rmSync(join(f, 'database/global/pg_control')), /pg_control is missing.*restore/],
    [
      'a control file of other bytes',
      (f) => {
        const file = join(f, 'database/global/pg_control');
        const bytes = readFileSync(file);
        bytes[100]! ^= 255;
        writeFileSync(file, bytes);
      },
      /gave up: .*control file.*restore/,
    ],
    ['a log cut off', (f) => truncateSync(walFile(f), 5000), /pg_wal\/[0-9A-F]+ is 5000 bytes long.*restore/],
    ['no log', (f) => rmSync(walFile(f)), /pg_wal holds no log.*restore/],
    ['a log of other bytes', (f) => writeFileSync(walFile(f), Buffer.alloc(16 * 1024 * 1024, 7)), /gave up: .*checkpoint.*restore/],
    ['no version', (f) => rmSync(join(f, 'database/PG_VERSION')), /PG_VERSION is missing/],
    [
      'an emptied database',
      (f) => {
        rmSync(join(f, 'database'), { recursive: true });
        mkdirSync(join(f, 'database'));
      },
      /"database" is empty/,
    ],
    ['no database', (f) => rmSync(join(f, 'database'), { recursive: true }), /its database is gone \(there is "coomb.json"/],
    ['a marker that cannot be read', (f) => writeFileSync(join(f, 'coomb.json'), '{'), /coomb.json cannot be read/],
    [
      'a newer layout',
      (f) => writeFileSync(join(f, 'coomb.json'), JSON.stringify({ format: 9, madeBy: '7.0.0', madeAt: '' })),
      /a newer Coomb \(7.0.0\) wrote it, in format 9; this one knows 1/,
    ],
  ])('is not started on with %s', async (_, how, says) => {
    expect(await refusal(damaged(how))).toMatch(says);
  });

  it('that holds foreign files is left alone', async () => {
    const folder = join(root, 'foreign');
    mkdirSync(folder);
    for (const name of ['a.txt', 'b.txt', 'c.txt', 'd.txt']) writeFileSync(join(folder, name), 'x');
    expect(await refusal(folder)).toMatch(/holds "a.txt", "b.txt", "c.txt" and 1 more, and nothing of Coomb's.*Name another folder/);
  });

  it('that was emptied does not start as an empty server while copies of it lie beside it', async () => {
    const folder = join(root, 'emptied');
    const copies = join(root, 'emptied.copies');
    mkdirSync(folder);
    mkdirSync(copies);
    writeFileSync(join(copies, 'coomb-20261127-080000.tar.gz'), 'x');
    expect(await refusal(folder, copies)).toMatch(/it is empty, but 1 copy of what was in it lie.* in .*emptied.copies.*restore --from/);
  });

  it('that a newer program has changed is refused before anything is changed', async () => {
    const folder = damaged(() => {});
    const { db, close } = await openDatabase(folder);
    await db.execute(sql`insert into drizzle.__drizzle_migrations (hash, created_at) values ('later', 9999999999999)`);
    await close();
    expect(await refusal(folder)).toMatch(/a newer Coomb changed its tables/);
  });

  it('with hidden files of a computer, a stale process file or something half made opens', async () => {
    const folder = damaged((f) => {
      writeFileSync(join(f, '.DS_Store'), 'x');
      writeFileSync(join(f, 'database', 'postmaster.pid'), '');
      mkdirSync(join(f, 'database.making'));
    });
    const { db, close } = await openDatabase(folder);
    expect((await db.execute(sql`select name from project`)).rows).toEqual([{ name: 'Kept' }]);
    await close();
    expect(readdirSync(folder)).not.toContain('database.making');
  });
});
