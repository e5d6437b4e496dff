import { keepView, readColours, withdrawItems, writeCells } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, makeProject, useServer } from '../testing/test-server.js';

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
});
