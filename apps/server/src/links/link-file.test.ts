import { createLinks, editItem, queryLinks, removeLinks } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, makeProject, useServer } from '../testing/test-server.js';
import { LinkListService } from './link-list.service.js';

describe('a file of all links', () => {
  const server = useServer();

  it('is of the moment at which it begins, whatever comes in while it is read', async () => {
    const { client } = server;
    const { project, requirements, tests } = await makeProject(client);
    const make = (collection: string, count: number) =>
      Promise.all(Array.from({ length: count }, (_, at) => addItem(client, project, collection, `Number ${at}`)));
    const [needed, done] = [await make(requirements, 26), await make(tests, 26)];
    const links = done.flatMap((from) => needed.map((to) => ({ linkKind: 'verifies', from: from.id, to: to.id })));
    const { ids } = await client.call(createLinks, { params: { project }, body: { links } });

    const wish = queryLinks.query!.parse({});
    const all = async () => {
      const found: string[][] = [];
      for await (const row of rows()) found.push(row);
      return found;
    };
    const rows = () => server.part(LinkListService).rowsOf(project, wish);
    const before = await all();
    // A head, and more rows than are read at once.
    expect(before).toHaveLength(1 + 26 * 26);

    const slow = rows();
    const read = [(await slow.next()).value, (await slow.next()).value];
    await client.call(removeLinks, { params: { project }, body: { links: ids.slice(0, 52) } });
    await client.call(editItem, { params: { project, item: needed[25]!.id }, body: { revision: 1, title: 'Of another name' } });
    for await (const row of slow) read.push(row);
    expect(read).toEqual(before);

    const after = await all();
    expect(after).toHaveLength(1 + 24 * 26);
    expect(after.flat()).toContain('Of another name');
  });
});
