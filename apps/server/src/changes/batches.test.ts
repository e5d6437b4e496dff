import { createWaiver, editItem, getBatch, listChanges, listRunResults, listRuns, listSources, openFigure, undo, withdrawItems } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

describe('what one action changed', () => {
  const server = useServer();

  async function scene() {
    const { client } = server;
    const small = await makeProject(client);
    const level = await addItem(client, small.project, small.requirements, 'Level');
    const gate = await addItem(client, small.project, small.design, 'Gate');
    const link = await addLink(client, small.project, 'satisfies', gate, level);
    const { project } = small;
    const last = async () => {
      const [batch] = await client.call(listChanges, { params: { project }, query: { most: 1 } });
      return client.call(getBatch, { params: { project, seq: batch!.seq }, query: {} });
    };
    return { ...small, client, level, gate, link, last };
  }

  it('names both ends of a link and how it reads', async () => {
    const { last } = await scene();
    expect((await last()).rows).toMatchObject([
      { entity: 'link', did: 'made', item: { reference: 'DES-001' }, phrase: 'satisfies', other: { reference: 'REQ-001' } },
    ]);
  });

  it('tells made, changed, withdrawn and restored apart', async () => {
    const { client, project, level, last } = await scene();
    await client.call(editItem, { params: { project, item: level.id }, body: { revision: 1, title: 'Level band' } });
    expect((await last()).rows).toMatchObject([{ entity: 'item', did: 'changed', item: { reference: 'REQ-001', title: 'Level band' }, name: 'Level band' }]);
    await client.call(withdrawItems, { params: { project }, body: { items: [level.id] } });
    expect((await last()).rows.map((row) => [row.entity, row.did])).toContainEqual(['item', 'withdrawn']);
    await client.call(undo, { params: { project } });
    expect((await last()).rows.map((row) => [row.entity, row.did])).toContainEqual(['item', 'restored']);
  });

  it('gives a waiver with its item and reason', async () => {
    const { client, project, level, last } = await scene();
    await client.call(createWaiver, { params: { project }, body: { item: level.id, rule: 'tested', reason: 'Shown by analysis' } });
    expect((await last()).rows).toMatchObject([{ entity: 'waiver', did: 'made', item: { reference: 'REQ-001' }, name: 'Shown by analysis' }]);
  });

  it('comes page by page, and every row once', async () => {
    const { client, project } = await scene();
    const rows = Array.from({ length: 30 }, (_, i) => `R-${i},Title ${i}`);
    await importThrough(client, project, 'many.csv', Buffer.from(['ID,Title', ...rows].join('\n')), {
      collection: { name: 'Many', prefix: 'R', holds: 'specification' },
    });
    const [batch] = await client.call(listChanges, { params: { project }, query: { most: 1 } });
    const seen: string[] = [];
    for (let offset = 0; ; offset += 7) {
      const page = await client.call(getBatch, { params: { project, seq: batch!.seq }, query: { offset, most: 7 } });
      seen.push(...page.rows.map((row) => `${row.entity} ${row.item?.reference ?? row.name}`));
      if (page.rows.length < 7) break;
    }
    expect(seen).toHaveLength(batch!.changes);
    expect(new Set(seen).size).toBe(seen.length);
    const [source] = await client.call(listSources, { params: { project } });
    const figure = await client.call(openFigure, { params: { project, figure: `source:${source!.id}` } });
    expect([source!.items, figure.items.length]).toEqual([30, 30]);
  });

  it('refuses a number that no action has', async () => {
    const { client, project } = await scene();
    await expect(client.call(getBatch, { params: { project, seq: 999 }, query: {} })).rejects.toMatchObject({ code: 'not-found' });
    // More than the database counts.
    await expect(client.call(getBatch, { params: { project, seq: 2_147_483_648 }, query: {} })).rejects.toMatchObject({ code: 'input-invalid' });
  });
});

describe('the results of a run', () => {
  const server = useServer();

  it('lists each with the test it was matched to, and those without one', async () => {
    const { client } = server;
    const { project, tests } = await makeProject(client);
    await addItem(client, project, tests, 'Opens in time');
    await importThrough(
      client,
      project,
      'run.xml',
      Buffer.from(
        '<testsuite name="Rig"><testcase name="TC-001" time="2.5"/><testcase name="Nobody knows"><failure message="too slow"/></testcase></testsuite>',
      ),
      {},
    );
    const [run] = await client.call(listRuns, { params: { project } });
    const { results } = await client.call(listRunResults, { params: { project, run: run!.id } });
    expect(results).toMatchObject([
      { name: 'TC-001', outcome: 'passed', duration: 2.5, reason: 'reference', test: { reference: 'TC-001' } },
      { name: 'Nobody knows', outcome: 'failed', message: 'too slow', reason: null, test: null },
    ]);
    expect(run!.counts).toEqual({ passed: 1, failed: 1, broken: 0, skipped: 0, unmatched: 1 });
    await client.call(undo, { params: { project } });
    await expect(client.call(listRunResults, { params: { project, run: run!.id } })).rejects.toMatchObject({ code: 'not-found' });
  });
});
