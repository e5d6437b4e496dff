import { changeLinks, createLinks, editItem, findLinkIds, getItem, type Item, listFindings, queryLinks, undo, withdrawItems } from '@coomb/contract';
import { readCsv, readXlsx } from '@coomb/formats';
import { beforeAll, describe, expect, it } from 'vitest';
import { addItem, addLink, makeProject, type SmallProject, useServer } from '../testing/test-server.js';

describe('all links', () => {
  const server = useServer();
  let made: SmallProject;
  const items: Record<string, Item> = {};
  const links: string[] = [];
  const query = (wish: object = {}) => server.client.call(queryLinks, { params: { project: made.project }, query: wish });
  const say = async (wish: object = {}) => (await query(wish)).rows.map(({ from, kind, to }) => `${from.reference} ${kind} ${to.reference}`);
  const change = (body: object) => server.client.call(changeLinks, { params: { project: made.project }, body: { links, ...body } as never });

  beforeAll(async () => {
    const { client } = server;
    made = await makeProject(client);
    for (const [name, collection] of [
      ['level', made.requirements],
      ['flow', made.requirements],
      ['gate', made.design],
      ['opens', made.tests],
      ['closes', made.tests],
    ] as const)
      items[name] = await addItem(client, made.project, collection, name);
    const link = async (kind: string, from: string, to: string, by = client) => links.push(await addLink(by, made.project, kind, items[from]!, items[to]!));
    await link('satisfies', 'gate', 'level');
    await link('verifies', 'opens', 'level');
    await link('verifies', 'closes', 'flow', server.as('Ewan Reed'));
    await link('derives', 'flow', 'level');
  });

  it('are listed from one end in reading order, in windows', async () => {
    expect(await say()).toEqual(['REQ-002 derives REQ-001', 'DES-001 satisfies REQ-001', 'TC-001 verifies REQ-001', 'TC-002 verifies REQ-002']);
    expect(await say({ offset: 1, limit: 2 })).toEqual(['DES-001 satisfies REQ-001', 'TC-001 verifies REQ-001']);
    expect(await query({ limit: 0 })).toMatchObject({ all: 4, total: 4, rows: [] });
    expect(await say({ sort: 'to', descending: 'yes' })).toEqual([
      'TC-002 verifies REQ-002',
      'TC-001 verifies REQ-001',
      'DES-001 satisfies REQ-001',
      'REQ-002 derives REQ-001',
    ]);
  });

  it('are narrowed by every part, and what else could be chosen is counted', async () => {
    expect(await say({ kind: 'verifies' })).toHaveLength(2);
    expect(await say({ kind: 'verifies,derives', words: 'flow' })).toEqual(['REQ-002 derives REQ-001', 'TC-002 verifies REQ-002']);
    expect(await say({ left: made.tests, right: made.requirements })).toHaveLength(2);
    expect(await say({ left: made.design, right: made.tests })).toEqual([]);
    expect(await say({ person: 'Ewan Reed' })).toEqual(['TC-002 verifies REQ-002']);
    expect(await say({ layers: 'tests>requirements' })).toHaveLength(2);
    expect(await say({ after: '2100-01-01' })).toEqual([]);
    const { counts } = await query({ kind: 'verifies' });
    expect(counts.kind).toEqual([
      { id: 'verifies', count: 2 },
      { id: 'derives', count: 1 },
      { id: 'satisfies', count: 1 },
    ]);
    expect(counts.person.toSorted((a, b) => (a.id < b.id ? -1 : 1))).toEqual([
      { id: 'Ada Wick', count: 1 },
      { id: 'Ewan Reed', count: 1 },
    ]);
    expect(await server.client.call(findLinkIds, { params: { project: made.project }, query: { kind: ['verifies'] } as never })).toHaveLength(2);
  });

  it('are narrowed by what an end says in a field, as it is now', async () => {
    const priorityOf = async (value: string) => say({ field: 'priority', value });
    const { client } = server;
    const put = (name: string, revision: number, priority: string | null) =>
      client.call(editItem, { params: { project: made.project, item: items[name]!.id }, body: { revision, fields: { priority } } });
    expect((await query({ field: 'priority' })).counts.value).toEqual([]);
    await put('flow', 1, 'High');
    expect(await priorityOf('High')).toEqual(['REQ-002 derives REQ-001', 'TC-002 verifies REQ-002']);
    await put('level', 1, 'Low');
    expect((await query({ field: 'priority' })).counts.value).toEqual([
      { id: 'Low', count: 3 },
      { id: 'High', count: 2 },
    ]);
    expect((await query({ field: 'priority' })).total).toBe(4);
    await put('flow', 2, 'Low');
    expect(await priorityOf('High')).toEqual([]);
    expect(await priorityOf('Low')).toHaveLength(4);
    await client.call(undo, { params: { project: made.project } });
    expect(await priorityOf('High')).toHaveLength(2);
    await client.call(undo, { params: { project: made.project } });
    await client.call(undo, { params: { project: made.project } });
    expect(await priorityOf('Low')).toEqual([]);
  });

  it('are saved as a workbook and as separated values, the rows that the filter leaves', async () => {
    const fetchFile = async (format: string) => {
      const response = await fetch(`${server.address}/api/projects/${made.project}/link-list/save/${format}?kind=verifies&sort=from`);
      expect(response.headers.get('content-disposition')).toContain(`Links.${format}`);
      return new Uint8Array(await response.arrayBuffer());
    };
    const csv = readCsv(await fetchFile('csv'), 'Links.csv').sheets[0]!.rows;
    expect(csv.map((row) => row.slice(0, 5))).toEqual([
      ['From', 'Title', 'Kind', 'reads', 'To'],
      ['TC-001', 'opens', 'Test case', 'verifies', 'REQ-001'],
      ['TC-002', 'closes', 'Test case', 'verifies', 'REQ-002'],
    ]);
    expect(csv[2]!.at(-4)).toBe('Ewan Reed');
    const { sheets } = await readXlsx(await fetchFile('xlsx'));
    expect(sheets[0]!.rows).toEqual(csv);
    expect((await fetch(`${server.address}/api/projects/01890000-0000-7000-8000-000000000000/link-list/save/csv`)).status).toBe(404);
    // A lens that is kept no more is told before a file is begun.
    for (const format of ['csv', 'xlsx']) {
      const response = await fetch(`${server.address}/api/projects/${made.project}/link-list/save/${format}?lens=${made.project}`);
      expect([response.status, await response.text()]).toEqual([404, expect.stringContaining('lens')]);
    }
  });

  it('are grouped with counts, the largest group first', async () => {
    const { groups, rows } = await query({ group: 'kind' });
    expect(groups[0]).toEqual({ id: 'verifies', count: 2 });
    expect(rows.slice(0, 2).map(({ kind }) => kind)).toEqual(['verifies', 'verifies']);
    expect((await query({ group: 'collections' })).groups.map(({ id }) => id)).toContain('Tests → Requirements');
  });

  it('follow changes: suspect, withdrawn ends, new ones', async () => {
    const { client } = server;
    await client.call(editItem, { params: { project: made.project, item: items.level!.id }, body: { revision: 1, title: 'Pool level' } });
    expect(await say({ state: 'suspect' })).toHaveLength(3);
    expect(await say({ words: 'pool' })).toHaveLength(3);
    await client.call(withdrawItems, { params: { project: made.project }, body: { items: [items.closes!.id] } });
    expect(await say({ state: 'withdrawn' })).toEqual(['TC-002 verifies REQ-002']);
    await client.call(undo, { params: { project: made.project } });
    const before = (await query()).all;
    await client.call(createLinks, {
      params: { project: made.project },
      body: { links: [{ linkKind: 'verifies', from: items.opens!.id, to: items.gate!.id }] },
    });
    expect((await query({ person: 'Ada Wick' })).rows.some(({ to }) => to.id === items.gate!.id)).toBe(true);
    expect((await query()).all).toBe(before + 1);
    await client.call(undo, { params: { project: made.project } });
    expect((await query()).all).toBe(before);
  });

  it('hang an end on another item and stay who they are; coverage, undo and a restart follow', async () => {
    const { client } = server;
    const gaps = async () =>
      (await client.call(listFindings, { params: { project: made.project }, query: { rule: 'gap:tested' } })).findings.map(({ item }) => item.title);
    const opens = links[1]!;
    expect(await gaps()).toEqual([]);
    const closes = links[2]!;
    const end = { sort: 'end', end: 'to', item: items.level!.id };
    expect(await change({ links: [closes], change: end, dryRun: true })).toMatchObject({ changed: 1, refused: [] });
    expect(await say({ words: 'tc-002' })).toEqual(['TC-002 verifies REQ-002']);
    await change({ links: [closes], change: end });
    expect(await say({ words: 'tc-002' })).toEqual(['TC-002 verifies REQ-001']);
    expect(await gaps()).toEqual(['flow']);
    const trail = async (item: Item) => (await client.call(getItem, { params: { project: made.project, item: item.id } })).downstream.map(({ id }) => id);
    expect(await trail(items.level!)).toEqual(expect.arrayContaining([closes, opens]));
    expect(await trail(items.flow!)).not.toContain(closes);
    await server.restart();
    expect(await say({ words: 'tc-002' })).toEqual(['TC-002 verifies REQ-001']);
    await server.client.call(undo, { params: { project: made.project } });
    expect(await say({ words: 'tc-002' })).toEqual(['TC-002 verifies REQ-002']);
    expect((await server.client.call(listFindings, { params: { project: made.project }, query: { rule: 'gap:tested' } })).total).toBe(0);
  });

  it('are not hung where they may not be, or stand already; what can be is done when asked so', async () => {
    const [opens, closes] = [links[1]!, links[2]!];
    // Said before any link is looked at, also of links that are gone.
    const gone = { links: [made.project], change: { sort: 'kind', linkKind: 'imagines' }, skipRefused: true };
    await expect(change(gone)).rejects.toMatchObject({ code: 'input-invalid', message: 'There is no link kind "imagines".' });
    await expect(change({ links: [links[3]!], change: { sort: 'end', end: 'to', item: items.gate!.id } })).rejects.toMatchObject({
      code: 'link-not-allowed',
      message: expect.stringContaining('does not join requirement with component'),
    });
    const both = { links: [opens, closes], change: { sort: 'end', end: 'from', item: items.opens!.reference } };
    expect(await change({ ...both, dryRun: true })).toMatchObject({ changed: 1, refused: [] });
    await change(both);
    const again = { links: [closes], change: { sort: 'end', end: 'to', item: items.level!.id } };
    expect(await change({ ...again, dryRun: true })).toMatchObject({ changed: 0, refused: [{ says: expect.stringContaining('said twice') }] });
    expect(await change({ links: [closes, links[0]!], change: { sort: 'kind', linkKind: 'verifies' }, skipRefused: true })).toMatchObject({ changed: 0 });
  });
});
