import { confirmLinks, editItem, findSuspectsAt, giveErrands, type Item, listChanges, listSuspects, withdrawItems } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

describe('suspect links', () => {
  const server = useServer();
  const project = async () => {
    const { client } = server;
    const made = await makeProject(client);
    const level = await addItem(client, made.project, made.requirements, 'Level');
    const gate = await addItem(client, made.project, made.design, 'Gate');
    const test = await addItem(client, made.project, made.tests, 'Opens');
    const ids = [await addLink(client, made.project, 'satisfies', gate, level), await addLink(client, made.project, 'verifies', test, level)];
    const reword = async (item: Item, title: string, revision: number) =>
      server.as('Ewan Reed').call(editItem, { params: { project: made.project, item: item.id }, body: { revision, title } });
    const list = () => client.call(listSuspects, { params: { project: made.project }, query: {} });
    return { ...made, level, gate, test, ids, reword, list, client };
  };

  it('are grouped by the change that made them so, the newest first', async () => {
    const { list, reword, level, gate } = await project();
    expect(await list()).toMatchObject({ links: 0, total: 0, groups: [] });
    await reword(level, 'Pool level', 1);
    await reword(gate, 'Gate leaf', 1);
    const { links, groups } = await list();
    expect(links).toBe(2);
    expect(
      groups.map(({ item, person, links: own }) => [
        item.reference,
        person,
        own.map(({ phrase, other, both }) => `${phrase} ${other.reference}${both ? ', both' : ''}`),
      ]),
    ).toEqual([
      ['DES-001', 'Ewan Reed', ['satisfies REQ-001, both']],
      ['REQ-001', 'Ewan Reed', ['is verified by TC-001']],
    ]);
    expect(groups[0]!.seq).toBeGreaterThan(groups[1]!.seq);
    expect(groups[1]!.action).toContain('REQ-001');
  });

  it('leave out what is withdrawn, and show who has them in hand', async () => {
    const { list, reword, level, test, ids, client, project: id } = await project();
    await reword(level, 'Pool level', 1);
    await client.call(giveErrands, { params: { project: id }, body: { sort: 'judge', owner: 'Ida Moss', about: [{ item: level.id, link: ids[0]! }] } });
    expect((await list()).groups[0]!.links.map(({ errand }) => errand?.owner)).toEqual(['Ida Moss', undefined]);
    await client.call(withdrawItems, { params: { project: id }, body: { items: [test.id] } });
    expect((await list()).links).toBe(1);
  });

  it('are found at items, each once, whichever end it is seen from', async () => {
    const { reword, level, gate, test, client, project: id } = await project();
    const at = (...items: Item[]) => client.call(findSuspectsAt, { params: { project: id }, body: { items: items.map((item) => item.id) } });
    expect((await at(level, gate, test)).links).toEqual([]);
    await reword(level, 'Pool level', 1);
    const say = async (...items: Item[]) => (await at(...items)).links.map(({ item, phrase, other }) => `${item.reference} ${phrase} ${other.reference}`);
    expect((await say(level)).toSorted()).toEqual(['REQ-001 is satisfied by DES-001', 'REQ-001 is verified by TC-001']);
    expect(await say(gate)).toEqual(['REQ-001 is satisfied by DES-001']);
    expect(await say(level, gate, test)).toHaveLength(2);
  });

  it('keep the reason where one alone is confirmed, too', async () => {
    const { reword, level, ids, client, project: id } = await project();
    await reword(level, 'Pool level', 1);
    await client.call(confirmLinks, { params: { project: id }, body: { links: [ids[0]!], reason: 'Name only' } });
    expect((await client.call(listChanges, { params: { project: id }, query: {} }))[0]!.action).toBe('Confirm the link from DES-001 to REQ-001: Name only');
  });

  it('are confirmed many at once with a reason, which the change keeps', async () => {
    const { list, reword, level, ids, client, project: id } = await project();
    await reword(level, 'Pool level', 1);
    await client.call(confirmLinks, { params: { project: id }, body: { links: ids, reason: 'Only the name changed' } });
    expect((await list()).links).toBe(0);
    expect((await client.call(listChanges, { params: { project: id }, query: {} }))[0]!.action).toBe('Confirm 2 links: Only the name changed');
  });
});
