import { listProjects, undo } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

describe('the list of projects', () => {
  const server = useServer();
  const counts = async () => (await server.client.call(listProjects, {})).map(({ name, items, links }) => [name, items, links]);

  it('counts items without sections, and links, after every change, undo and restart', async () => {
    const { project, requirements, design } = await makeProject(server.client, 'Mill pond');
    await makeProject(server.client, 'Mill race');
    expect(await counts()).toEqual([
      ['Mill pond', 0, 0],
      ['Mill race', 0, 0],
    ]);
    await addItem(server.client, project, requirements, 'Gates', { heading: true });
    const one = await addItem(server.client, project, requirements, 'The gate shall close');
    const two = await addItem(server.client, project, design, 'Gate');
    expect((await counts())[0]).toEqual(['Mill pond', 2, 0]);
    await addLink(server.client, project, 'satisfies', two, one);
    expect((await counts())[0]).toEqual(['Mill pond', 2, 1]);
    await server.restart();
    expect((await counts())[0]).toEqual(['Mill pond', 2, 1]);
    await server.client.call(undo, { params: { project } });
    expect((await counts())[0]).toEqual(['Mill pond', 2, 0]);
    await server.client.call(undo, { params: { project } });
    expect(await counts()).toEqual([
      ['Mill pond', 1, 0],
      ['Mill race', 0, 0],
    ]);
  });
});
