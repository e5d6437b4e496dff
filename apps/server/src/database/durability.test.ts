import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { seeded } from '@coomb/core/testing';
import { CutDisk } from '../testing/cut-disk.js';
import { templateFolder } from '../testing/make-template.js';
import { DatabaseClient } from './database-client.js';
import { Engine } from './engine.js';

const CUTS = Number(process.env.COOMB_CUTS ?? 24);

/**
 * Power is cut at random moments of a life of changes, checkpoints and crashes of the session. What the disk then holds is rebuilt by the
 * least that a disk must keep: what was synced, and of everything else nothing, or any pieces in any order.
 */
describe('a cut of power', () => {
  const folder = mkdtempSync(join(tmpdir(), 'coomb-power-'));
  let disk: CutDisk;
  /** How many rows had been answered as stored at each number of disk operations. */
  const acknowledged: { operations: number; rows: number }[] = [{ operations: 0, rows: 0 }];

  beforeAll(async () => {
    disk = new CutDisk(templateFolder, join(folder, 'live'));
    const engine = await Engine.open(disk.folder, { prepare: disk.record });
    const client = new DatabaseClient(engine);
    await client.query('create table row (id int primary key, text text not null)');
    acknowledged.push({ operations: disk.operations, rows: 0 });
    let next = 0;
    for (let round = 0; round < 120; round++) {
      // Several at once, so that they share a sync, and one large one now and then.
      const sizes = round % 10 === 9 ? [400] : [1, 3, 2];
      await Promise.all(
        sizes.map((size) =>
          client.transaction(async (tx) => {
            const first = next;
            next += size;
            await tx.query(`insert into row select n, repeat('row ' || n || ' ', 40) from generate_series($1::int, $2::int) n`, [first, first + size - 1]);
          }),
        ),
      );
      acknowledged.push({ operations: disk.operations, rows: next });
      if (round % 25 === 24) await client.maintain('checkpoint');
      if (round === 60) await client.maintain('vacuum (analyze)');
    }
    await engine.close();
  });
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  it(`loses nothing that was answered, in ${CUTS} cuts`, async () => {
    const random = seeded(11);
    const first = acknowledged[1]!.operations;
    for (let cut = 0; cut < CUTS; cut++) {
      const at = first + Math.floor(random() * (disk.operations - first));
      const how = (['nothing', 'pieces', 'pieces but the log'] as const)[cut % 3]!;
      const left = join(folder, `cut-${cut}`);
      disk.cut(left, at, how, random);
      const promised = acknowledged.filter((one) => one.operations <= at).at(-1)!.rows;
      const says = `cut ${cut} after ${at} of ${disk.operations} operations, keeping ${how}`;
      const engine = await Engine.open(left).catch((error) => {
        throw new Error(`${says}: it does not open: ${error.message}`);
      });
      const run = async (sql: string) => (await engine.run({ sql, params: [], rowMode: 'array' })).rows as unknown[][];
      const [[count, least, most, broken]] = (await run(
        `select count(*)::int, min(id), max(id), count(*) filter (where text <> repeat('row ' || id || ' ', 40))::int from row`,
      )) as [[number, number, number, number]];
      expect(count, says).toBeGreaterThanOrEqual(promised);
      if (count > 0) expect([least, most, broken], says).toEqual([0, count - 1, 0]);
      await run('create extension if not exists amcheck');
      await run(`select bt_index_check('row_pkey', true)`);
      for (let more = 0; more < 3; more++) await run(`insert into row values (${100_000 + more}, 'after')`);
      await engine.close();
      rmSync(left, { recursive: true, force: true });
    }
  }, 600_000);

  it('would be noticed: without syncing, cuts lose what was answered', () => {
    // The same cuts on the same record, had no sync ever reached the disk.
    const random = seeded(11);
    const at = disk.operations;
    expect(disk.bytesAt(at, 'nothing', random, { ignoreSyncs: true })).toBeLessThan(disk.bytesAt(at, 'nothing', random));
  });
});
