import { createBaseline, editItem, listBaselines, listChanges, undo, withdrawBaseline } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, makeProject, useServer } from '../testing/test-server.js';

describe('baselines', () => {
  const server = useServer();

  it('name the present or an earlier moment, which can then be read, and are taken back', async () => {
    const { client } = server;
    const { project, requirements } = await makeProject(client);
    const params = { project };
    const item = await addItem(client, project, requirements, 'The gate shall close');
    const first = await client.call(createBaseline, { params, body: { name: 'Issue 1', note: 'For the board.' } });
    await client.call(editItem, { params: { project, item: item.id }, body: { revision: item.revision, title: 'The gate shall lock' } });
    expect(first).toMatchObject({ name: 'Issue 1', note: 'For the board.', seq: 4, person: 'Ada Wick' });
    await client.call(createBaseline, { params, body: { name: 'Issue 2' } });
    await client.call(createBaseline, { params, body: { name: 'Before anything', seq: 1 } });
    const names = async () => (await server.client.call(listBaselines, { params })).map(({ name, seq }) => [name, seq]);
    expect(await names()).toEqual([
      ['Issue 2', 6],
      ['Issue 1', 4],
      ['Before anything', 1],
    ]);
    const read = async (seq: number) =>
      ((await (await fetch(`${server.address}/api/projects/${project}/outline?asOf=${seq}`)).json()) as { title: string[] }).title;
    expect(await read(first.seq)).toEqual(['The gate shall close']);
    expect(await read(6)).toEqual(['The gate shall lock']);
    expect(await read(1)).toEqual([]);
    await client.call(withdrawBaseline, { params: { project, baseline: first.id } });
    await server.restart();
    expect((await names()).map(([name]) => name)).toEqual(['Issue 2', 'Before anything']);
    await server.client.call(undo, { params });
    expect(await names()).toHaveLength(3);
    expect((await server.client.call(listChanges, { params, query: {} }))[0]!.action).toBe('Undo: Take back the name "Issue 1" of change 4');
  });

  it('have names of their own, of changes that are there', async () => {
    const { project } = await makeProject(server.client);
    const name = (body: { name: string; seq?: number }) => server.client.call(createBaseline, { params: { project }, body });
    await name({ name: 'Issue 1' });
    await expect(name({ name: 'issue 1' })).rejects.toMatchObject({
      code: 'input-invalid',
      message: expect.stringContaining('is the name of change 3 already'),
    });
    await expect(name({ name: 'Later', seq: 99 })).rejects.toMatchObject({ code: 'not-found' });
    await expect(name({ name: ' ' })).rejects.toMatchObject({ code: 'input-invalid' });
  });
});
