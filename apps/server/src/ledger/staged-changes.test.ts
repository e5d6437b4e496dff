import { editItem, findItems, getItem, getOutline, readCollection } from '@coomb/contract';
import { describe, expect, it, vi } from 'vitest';
import { verifyDatabase } from '../backup/verify.js';
import { LedgerService } from '../changes/ledger.service.js';
import { importThrough } from '../cli/client.js';
import { DATABASE } from '../http/tokens.js';
import type { Database } from '../database/database.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { addItem, makeProject, useServer } from '../testing/test-server.js';
import { type Change, type ItemValue, UNNUMBERED } from './change.js';
import { LedgerRepo } from './ledger.repo.js';
import { StagedChanges } from './staged-changes.js';

const ROWS = 400;

describe('changes written ahead', () => {
  const server = useServer();
  const db = () => server.part<Database>(DATABASE as never);
  const state = (project: string): Promise<ProjectState> => server.part(ProjectStates).get(project);

  /** A project with many items. */
  const makeLarge = async () => {
    const made = await makeProject(server.client);
    const rows = Array.from({ length: ROWS }, (_, index) => `REQ-${index + 1},Level ${index + 1},The weir shall hold level ${index + 1}`);
    const bytes = Buffer.from(['ID,Title,Text', ...rows].join('\n'));
    await importThrough(server.client, made.project, 'many.csv', bytes, { collection: { id: made.requirements } });
    return made;
  };
  /** Every item under another title, and as many new ones below. */
  const buildChanges = async (project: string): Promise<Change[]> => {
    const { items } = await state(project);
    const rows = await server.part(LedgerRepo).findRows(
      'item',
      items.map(({ id }) => id),
    );
    return [...rows.values()].flatMap((before): Change[] => {
      const added: ItemValue = { ...before, id: crypto.randomUUID(), reference: `${before.reference}-B`, node: UNNUMBERED, rank: before.rank + 1 };
      return [
        { entity: 'item', before, after: { ...before, title: `Ahead ${before.title}`, revision: before.revision + 1 } },
        { entity: 'item', before: null, after: added },
      ];
    });
  };
  const change = (project: string, changes: Change[], step: (done: number) => Promise<void> = async () => {}) =>
    server.part(LedgerService).change(project, async () => ({ person: 'Ada Wick', action: 'Change much', changes, step }));
  /** Everything that the database holds of a project. */
  const dump = async (project: string): Promise<string> => {
    const tables = ['project', 'batch', 'history', 'item', 'link', 'source', 'file'];
    const rows = tables.map(
      (table) => `select '${table}' as of, to_jsonb(one)::text as row from ${table} one where ${table === 'project' ? 'id' : 'project_id'} = '${project}'`,
    );
    return JSON.stringify((await db().execute(`${rows.join(' union all ')} order by 1, 2`)).rows);
  };
  const expectSound = async () => expect((await verifyDatabase(db())).flatMap(({ faults }) => faults)).toEqual([]);

  it('are seen by nobody before all of them are there', async () => {
    const { project, requirements } = await makeLarge();
    const changes = await buildChanges(project);
    const { id } = (await state(project)).items[0]!;
    const read = async () => ({
      sheet: (await server.client.call(getItem, { params: { project, item: id } })).title,
      outline: (await server.client.call(getOutline, { params: { project } })).id.length,
      reading: (await server.client.call(readCollection, { params: { project, collection: requirements } })).items
        .map((item) => item.title)
        .filter((title) => title.startsWith('Ahead')).length,
      found: (await server.client.call(findItems, { params: { project }, query: { words: 'ahead', most: 100 } })).length,
    });
    const seen: Awaited<ReturnType<typeof read>>[] = [];
    await change(project, changes, async (done) => void (done < changes.length && seen.push(await read())));
    expect(seen.length).toBeGreaterThan(3);
    expect(new Set(seen.map((one) => JSON.stringify(one)))).toEqual(new Set([JSON.stringify({ sheet: 'Level 1', outline: ROWS, reading: 0, found: 0 })]));
    expect(await read()).toEqual({ sheet: 'Ahead Level 1', outline: 2 * ROWS, reading: 50, found: 100 });
    await expectSound();
  });

  it('leave nothing when they are broken off', async () => {
    const { project, requirements } = await makeLarge();
    const before = await dump(project);
    const broken = change(project, await buildChanges(project), async (done) => {
      if (done > ROWS) throw new Error('no more');
    });
    await expect(broken).rejects.toThrow('no more');
    expect(await dump(project)).toBe(before);
    expect((await addItem(server.client, project, requirements, 'The next one')).reference).toBe('REQ-401');
    await expectSound();
  });

  it('leave nothing behind a server that stopped among them', async () => {
    const { project } = await makeLarge();
    const before = await dump(project);
    const changes = await buildChanges(project);
    const { seq } = await state(project);
    const repo = server.part(LedgerRepo);
    // As far as the database can tell, a server ended here.
    await repo.transaction((tx) => repo.writeChanges(tx, { projectId: project, seq: seq + 1 } as never, changes.slice(0, 300).map(numbered), 0));
    await db().execute(`insert into file_part values ('${crypto.randomUUID()}', 0, 'x')`);
    expect(await dump(project)).not.toBe(before);
    await server.restart();
    expect(await dump(project)).toBe(before);
    expect((await db().execute('select 1 from file_part')).rows).toEqual([]);
    await expectSound();
  });

  it('are taken back before the next change where that failed at first, and are not read until then', async () => {
    const { project, requirements } = await makeLarge();
    const { id } = (await state(project)).items[0]!;
    const drop = vi.spyOn(StagedChanges.prototype as unknown as { drop: () => Promise<void> }, 'drop').mockRejectedValueOnce(new Error('no room'));
    await expect(
      change(project, await buildChanges(project), async (done) => {
        if (done > ROWS) throw new Error('no more');
      }),
    ).rejects.toThrow('no more');
    drop.mockRestore();
    expect((await server.client.call(getItem, { params: { project, item: id } })).title).toBe('Level 1');
    await addItem(server.client, project, requirements, 'The next one');
    expect((await db().execute(`select title from item where id = '${id}'`)).rows).toEqual([{ title: 'Level 1' }]);
    expect((await server.client.call(getOutline, { params: { project } })).id.length).toBe(ROWS + 1);
    await expectSound();
  });

  it('stay where they became valid and only the answer was lost: all of it is there, and the next change follows', async () => {
    const { project, requirements } = await makeLarge();
    const changes = await buildChanges(project);
    const repo = server.part(LedgerRepo);
    const original = repo.transaction.bind(repo);
    const { seq } = await state(project);
    vi.spyOn(repo, 'transaction').mockImplementation(async (work) => {
      const result = await original(work);
      if (((await db().execute(`select seq from project where id = '${project}'`)).rows[0] as { seq: number }).seq > seq) throw new Error('answer lost');
      return result;
    });
    await expect(change(project, changes)).rejects.toThrow('answer lost');
    vi.restoreAllMocks();
    const outline = await server.client.call(getOutline, { params: { project } });
    expect(outline.seq).toBe(seq + 1);
    expect(outline.id.length).toBe(2 * ROWS);
    await addItem(server.client, project, requirements, 'The next one');
    await expectSound();
  });

  it('let an item be changed at once where what was left of another change could not be taken back', async () => {
    const { project } = await makeLarge();
    const { id } = (await state(project)).items[0]!;
    vi.spyOn(StagedChanges.prototype as unknown as { drop: () => Promise<void> }, 'drop').mockRejectedValueOnce(new Error('no room'));
    const broken = change(project, await buildChanges(project), async (done) => {
      if (done > ROWS) throw new Error('no more');
    });
    await expect(broken).rejects.toThrow('no more');
    vi.restoreAllMocks();
    await server.client.call(editItem, { params: { project, item: id }, body: { revision: 1, title: 'Mended' } });
    expect((await server.client.call(getItem, { params: { project, item: id } })).title).toBe('Mended');
    await expectSound();
  });

  const numbered = (one: Change, index: number): Change =>
    one.entity === 'item' && one.before === null ? { ...one, after: { ...one.after, node: 10_000 + index } } : one;
});
