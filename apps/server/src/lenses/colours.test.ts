import { editItem, getProject, keepView, readColours, withdrawItems, writeCells } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import type { Client } from '../cli/client.js';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

async function addTests(client: Client, project: string) {
  const { collections } = await client.call(getProject, { params: { project } });
  const tests = collections.find(({ kind }) => kind === 'testCase')!.id;
  return [await addItem(client, project, tests, 'Opens'), await addItem(client, project, tests, 'Closes')];
}

describe('colour keys', () => {
  const server = useServer();
  const scene = async () => {
    const { client } = server;
    const { project, requirements } = await makeProject(client);
    const items = [];
    for (const [title, priority] of [
      ['Level', 'High'],
      ['Flow', 'Low'],
      ['Gate', 'High'],
      ['Rail', ''],
    ] as const) {
      const item = await addItem(client, project, requirements, title);
      items.push(item);
      if (priority)
        await client.call(writeCells, {
          params: { project },
          body: { cells: [{ item: item.id, column: { sort: 'field', field: 'priority' }, text: priority }] } as never,
        });
    }
    const keep = (key: object) =>
      client.call(keepView, { params: { project }, body: { sort: 'colourKey', name: 'Priority', body: { key: JSON.stringify(key) } } });
    const read = async (key: object) => client.call(readColours, { params: { project, key: (await keep(key)).id } });
    return { client, project, items, keep, read };
  };
  const shown = { sort: 'field', of: 'priority' };
  const fill = '#0072b2';

  it('tell which items have which entry, how many, and which values have none; nothing said is a value, where it has an entry', async () => {
    const { read, client, project, items } = await scene();
    expect(await read({ shown, entries: [{ value: 'High', fill, label: 'Urgent' }] })).toMatchObject({
      of: 'Priority',
      entries: [{ value: 'High', label: 'Urgent', fill, count: 2 }],
      items: [['REQ-001', 'REQ-003']],
      unkeyed: [{ value: 'Low', count: 1 }],
    });
    expect((await read({ shown, entries: [{ value: '', fill }] })).entries).toEqual([{ value: '', label: 'not said', fill, count: 1 }]);
    await client.call(withdrawItems, { params: { project }, body: { items: [items[0]!.id] } });
    expect((await read({ shown, entries: [{ value: 'High', fill }] })).items).toEqual([['REQ-003']]);
  });

  it('colour nothing where what they ask for is not in the project, and say so; what is no key is refused', async () => {
    const { read, keep } = await scene();
    expect(await read({ shown: { sort: 'field', of: 'nowhere' }, entries: [{ value: 'a', fill }] })).toMatchObject({ of: null, items: [[]], unkeyed: [] });
    await expect(keep({ shown, entries: [{ value: 'a', fill: 'red' }] })).rejects.toMatchObject({ code: 'input-invalid' });
  });

  it('colour by ranges', async () => {
    const { read } = await scene();
    const reply = await read({
      shown: { sort: 'changedAt' },
      ranges: true,
      entries: [
        { value: '2000-01-01', fill },
        { value: '', fill, label: 'since' },
      ],
    });
    expect(reply.entries.map(({ count }) => count)).toEqual([0, 4]);
  });

  it('colour links: by kind and by what stands in their fields, as they are now', async () => {
    const { read, client, project, items } = await scene();
    const requirements = items;
    const tests = await addTests(client, project);
    await addLink(client, project, 'verifies', tests[0]!, requirements[0]!);
    await addLink(client, project, 'verifies', tests[1]!, requirements[1]!);
    await addLink(client, project, 'derives', requirements[2]!, requirements[0]!);
    const byKind = {
      about: 'links',
      shown: { sort: 'linkKind' },
      entries: [{ value: 'verifies', fill, line: '#123456', width: 3, dash: 'dotted', glyph: 'dot' }],
    };
    const told = await read(byKind);
    expect(told).toMatchObject({ about: 'links', of: 'Kind of link', entries: [{ count: 2, line: '#123456', width: 3, dash: 'dotted', glyph: 'dot' }] });
    expect(told.unkeyed).toEqual([{ value: 'is derived from', count: 1 }]);
    expect(told.links.from.map((from, at) => [from, told.links.to[at], told.links.entry[at]])).toEqual([
      [tests[0]!.node, requirements[0]!.node, 0],
      [tests[1]!.node, requirements[1]!.node, 0],
    ]);
    const standing = { about: 'links', shown: { sort: 'linkStanding' }, entries: ['confirmed', 'suspect'].map((value) => ({ value, fill })) };
    expect((await read(standing)).entries.map(({ count }) => count)).toEqual([3, 0]);
    await client.call(editItem, { params: { project, item: requirements[1]!.id }, body: { revision: 2, html: '<p>Another flow.</p>' } });
    expect((await read(standing)).entries.map(({ count }) => count)).toEqual([2, 1]);
  });
});
