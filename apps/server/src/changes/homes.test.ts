import { createCollection, createItem, getOutline, getProject, restoreItems, undo, withdrawCollection, withdrawItems } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

describe('items and their collections', () => {
  const server = useServer();
  const titles = async (project: string) => (await server.client.call(getOutline, { params: { project } })).title;
  const names = async (project: string) => (await server.client.call(getProject, { params: { project } })).collections.map(({ name }) => name);
  const restore = (project: string, ...items: string[]) => server.client.call(restoreItems, { params: { project }, body: { items } });
  const close = (project: string, collection: string, who = 'Ada Wick') => server.as(who).call(withdrawCollection, { params: { project, collection } });

  it('come back together, as one change', async () => {
    const { project, requirements, design } = await makeProject(server.client);
    const [a] = [await addItem(server.client, project, requirements, 'A'), await addItem(server.client, project, requirements, 'B')];
    const gate = await addItem(server.client, project, design, 'Gate');
    await addLink(server.client, project, 'satisfies', gate, a);
    await close(project, requirements);
    expect([await titles(project), await names(project)]).toEqual([['Gate'], ['Design', 'Tests']]);
    await restore(project, a.id);
    expect([await titles(project), await names(project)]).toEqual([
      ['A', 'Gate'],
      ['Requirements', 'Design', 'Tests'],
    ]);
    expect((await server.client.call(undo, { params: { project } })).action).toBe('Restore REQ-001 with the collection Requirements');
    expect([await titles(project), await names(project)]).toEqual([['Gate'], ['Design', 'Tests']]);
  });

  it('are not parted by taking back what made the collection, when somebody put an item there since', async () => {
    const { project } = await makeProject(server.client);
    const { id: collection } = await server.client.call(createCollection, {
      params: { project },
      body: { name: 'Hazards', holds: 'specification', prefix: 'HAZ', kind: 'requirement' },
    });
    await addItem(server.as('Bo Reed'), project, collection, 'Overtopping');
    await expect(server.client.call(undo, { params: { project } })).rejects.toMatchObject({
      code: 'undo-refused',
      message: expect.stringContaining('HAZ-001 stands in the collection "Hazards", which would be withdrawn with it'),
    });
    expect([await titles(project), await names(project)]).toEqual([['Overtopping'], expect.arrayContaining(['Hazards'])]);
    await server.as('Bo Reed').call(undo, { params: { project } });
    await server.client.call(undo, { params: { project } });
    expect(await names(project)).not.toContain('Hazards');
  });

  it('are not parted by taking back what withdrew an item, when its collection was withdrawn since', async () => {
    const { project, requirements } = await makeProject(server.client);
    const [a, b] = [await addItem(server.client, project, requirements, 'A'), await addItem(server.client, project, requirements, 'B')];
    await server.client.call(withdrawItems, { params: { project }, body: { items: [b.id] } });
    await close(project, requirements, 'Bo Reed');
    await expect(server.client.call(undo, { params: { project } })).rejects.toMatchObject({
      code: 'undo-refused',
      message: expect.stringContaining('REQ-002'),
    });
    // Its own page brings it back, and the others stay as they were.
    await restore(project, b.id);
    expect(await titles(project)).toEqual(['B']);
    await restore(project, a.id);
    expect(await titles(project)).toEqual(['A', 'B']);
  });

  it('refuse what would be put where no view shows it', async () => {
    const { project, requirements } = await makeProject(server.client);
    const a = await addItem(server.client, project, requirements, 'A');
    await close(project, requirements);
    await expect(server.client.call(createItem, { params: { project }, body: { collection: requirements, title: 'B' } })).rejects.toThrow(/collection/);
    const file = await fetch(`${server.address}/api/projects/${project}/export/reqif`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ items: [a.id] }),
    });
    expect([file.status, await file.text()]).toEqual([404, expect.stringContaining('REQ-001 is not there any more')]);
  });
});
