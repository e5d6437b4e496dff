import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, truncateSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { editItem, getUpkeep, listTray } from '@coomb/contract';
import { sql } from 'drizzle-orm';
import { create } from 'tar';
import { afterAll, describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { runCommand } from '../cli/run-command.js';
import { openDatabase } from '../database/database.js';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

const root = mkdtempSync(join(tmpdir(), 'coomb-backup-'));
afterAll(() => rmSync(root, { recursive: true, force: true }));

const run = async (...args: string[]) => {
  const out: string[] = [];
  const error: string[] = [];
  const code = await runCommand(args, { out: (text) => out.push(text), error: (text) => error.push(text) });
  return { code, out: out.join('\n'), error: error.join('\n') };
};

/** Every row of every table, as text. */
async function readRows(folder: string): Promise<Record<string, string[]>> {
  const { db, close } = await openDatabase(folder);
  const tables = (await db.execute<{ name: string }>(sql`select table_name as name from information_schema.tables where table_schema = 'public' order by 1`))
    .rows;
  const rows: Record<string, string[]> = {};
  for (const { name } of tables)
    rows[name] = (await db.execute<{ row: string }>(sql`select one::text as row from ${sql.identifier(name)} one order by 1`)).rows.map(({ row }) => row);
  await close();
  return rows;
}

describe('backup, restore, verify', () => {
  const server = useServer();
  const file = join(root, 'all.tar.gz');

  it('copies everything while people work, and brings it back equal, row by row', async () => {
    const { client } = server;
    const { project, requirements, tests } = await makeProject(client);
    const item = await addItem(client, project, requirements, 'Level', { html: '<p>Within 2 cm.</p>' });
    await addLink(client, project, 'verifies', await addItem(client, project, tests, 'Gauge'), item);
    await importThrough(client, project, 'a.csv', Buffer.from('ID,Title\nA-1,One\nA-2,Two'), {
      collection: { name: 'A', prefix: 'A', holds: 'specification' },
    });
    await client.upload(project, 'later.csv', Buffer.from('ID,Title\nB-1,Later'));
    let edits = 0;
    let working = true;
    const work = (async () => {
      for (; working; edits++) await client.call(editItem, { params: { project, item: item.id }, body: { revision: 1 + edits, title: `Level ${edits}` } });
    })();
    const made = await run('backup', '--server', server.address, '--out', file);
    working = false;
    await work;
    expect([made.code, made.error]).toEqual([0, '']);
    expect(edits).toBeGreaterThan(1);

    const folder = join(root, 'restored');
    const restored = await run('restore', '--from', file, '--data', folder);
    expect([restored.code, restored.error]).toEqual([0, '']);
    const verified = await run('verify', '--data', folder);
    expect([verified.code, verified.out]).toEqual([0, expect.stringContaining('is sound')]);
    // As of some moment of the work: all changes up to one, and none after.
    const rows = await readRows(folder);
    const titles = rows.history!.length;
    expect(titles).toBeGreaterThan(5);
    expect(existsSync(join(folder, 'tray', project))).toBe(true);

    // With nobody at work, equal to what it was made of.
    const still = join(root, 'still.tar.gz');
    await run('backup', '--server', server.address, '--out', still);
    await run('restore', '--from', still, '--data', join(root, 'still'));
    await server.restart();
    expect(await server.client.call(listTray, { params: { project } })).toHaveLength(1);
    await server.pause();
    expect(await readRows(join(root, 'still'))).toEqual(await readRows(server.folder));
    await server.resume();
  });

  it.each<[string, (path: string) => Promise<void> | void, RegExp]>([
    ['cut off', (path) => truncateSync(path, Math.floor(readFileSync(path).length / 2)), /cannot be unpacked|is missing/],
    ['something else', (path) => writeFileSync(path, 'hello'), /cannot be unpacked.*no backup|is no backup/],
    [
      'another archive',
      async (path) => {
        mkdirSync(join(root, 'other'), { recursive: true });
        writeFileSync(join(root, 'other', 'a.txt'), 'x');
        await create({ gzip: true, cwd: join(root, 'other'), file: path }, ['a.txt']);
      },
      /is no backup of Coomb: it holds no coomb-backup.json/,
    ],
  ])('refuses to restore from a file that is %s, and leaves nothing behind', async (name, change, says) => {
    const bad = join(root, `${name}.tar.gz`);
    writeFileSync(bad, readFileSync(file));
    await change(bad);
    const folder = join(root, `of ${name}`);
    const { code, error } = await run('restore', '--from', bad, '--data', folder);
    expect([code, error]).toEqual([1, expect.stringMatching(says)]);
    expect(existsSync(folder) ? readdirSync(folder) : []).toEqual([]);
  });

  it('refuses to restore over something', async () => {
    const { code, error } = await run('restore', '--from', file, '--data', join(root, 'restored'));
    expect([code, error]).toEqual([5, expect.stringMatching(/is not empty/)]);
  });

  it('tells rows that are not what their last change left, and files that are not what came in', async () => {
    const folder = join(root, 'tampered');
    await run('restore', '--from', file, '--data', folder);
    const { db, close } = await openDatabase(folder);
    await db.execute(sql`update item set title = 'Forged' where reference = 'A-1'`);
    await db.execute(sql`update file set bytes = 'x'`);
    await db.execute(sql`update project set seq = seq + 3`);
    await close();
    const { code, out } = await run('verify', '--data', folder);
    expect(code).toBe(5);
    expect(out).toMatch(/item A-1: it is not what its last change left/);
    expect(out).toMatch(/a\.csv: its bytes are not those that came in/);
    expect(out).toMatch(/"Mill pond" stands at change \d+, but \d+ changes/);
  });

  it('tells damaged pages by their checksums', async () => {
    const folder = join(root, 'pages');
    await run('restore', '--from', file, '--data', folder);
    const { db, close } = await openDatabase(folder);
    const { rows } = await db.execute<{ path: string }>(sql`select pg_relation_filepath('item') as path`);
    await close();
    const path = join(folder, 'database', rows[0]!.path);
    const bytes = readFileSync(path);
    bytes.fill(0x55, 4000, 4200);
    writeFileSync(path, bytes);
    const { code, out } = await run('verify', '--data', folder);
    expect([code, out]).toEqual([5, expect.stringMatching(/FAULTY.*table item: invalid page/s)]);
  });
});

describe('copies by themselves', () => {
  const folder = join(root, 'copies');
  const server = useServer({ copies: { folder, keep: 2, everyHours: 24 } });

  it('are made when the newest is older than a day, kept by number, and told when they fail', async () => {
    await makeProject(server.client);
    const copies = server.copies();
    expect(await copies.makeDue()).toMatch(/coomb-\d{8}-\d{6}\.tar\.gz$/);
    expect(await copies.makeDue()).toBeUndefined();
    const age = (name: string) => utimesSync(join(folder, name), new Date(), new Date(Date.now() - 25 * 3_600_000));
    for (let round = 0; round < 2; round++) {
      for (const name of readdirSync(folder)) age(name);
      expect(await copies.makeDue()).toBeDefined();
    }
    expect(readdirSync(folder)).toHaveLength(2);
    const restored = join(root, 'of a copy');
    expect((await run('restore', '--from', folder, '--data', restored)).code).toBe(0);
    expect((await server.client.call(getUpkeep)).copies).toMatchObject({ failed: null, keep: 2 });

    for (const name of readdirSync(folder)) rmSync(join(folder, name));
    rmSync(folder, { recursive: true });
    writeFileSync(folder, 'in the way');
    expect(await copies.makeDue().catch(() => 'threw')).toBeUndefined();
    expect((await server.client.call(getUpkeep)).copies!.failed).toMatch(/EEXIST|ENOTDIR/);
    rmSync(folder);
    expect(await copies.makeDue()).toBeDefined();
    expect((await server.client.call(getUpkeep)).copies!.failed).toBeNull();
    expect(readdirSync(server.folder).filter((name) => name.startsWith('copy-'))).toEqual([]);
  });
});
