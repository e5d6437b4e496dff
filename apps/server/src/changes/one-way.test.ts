import { createReport, editItem, getOutline, getProject, listChanges, listReports, renameProject, undo, redo } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { ProjectStates } from '../project-state/project-states.js';
import { addItem, makeProject, useServer } from '../testing/test-server.js';

describe('the one way to change a project', () => {
  const server = useServer();

  it('is taken by its name, which can be undone and done again', async () => {
    const { client } = server;
    const { project } = await makeProject(client, 'Mill pond');
    const name = async () => (await client.call(getProject, { params: { project } })).name;
    await client.call(renameProject, { params: { project }, body: { name: 'Mill race' } });
    expect(await name()).toBe('Mill race');
    expect((await client.call(listChanges, { params: { project }, query: {} }))[0]!.action).toBe('Rename the project Mill pond to Mill race');
    await client.call(undo, { params: { project } });
    expect(await name()).toBe('Mill pond');
    await client.call(redo, { params: { project } });
    await server.restart();
    expect((await server.client.call(getProject, { params: { project } })).name).toBe('Mill race');
  });

  it('is taken by reports, which can be taken back, and make no other report old', async () => {
    const { client } = server;
    const { project, requirements } = await makeProject(client);
    await addItem(client, project, requirements, 'The gate shall close');
    const publish = (title: string) => client.call(createReport, { params: { project }, body: { title } });
    const reports = async () => (await server.client.call(listReports, { params: { project } })).map(({ title, number, stale }) => [number, title, stale]);
    await publish('First');
    await publish('Second');
    expect(await reports()).toEqual([
      [2, 'Second', false],
      [1, 'First', false],
    ]);
    await client.call(undo, { params: { project } });
    expect(await reports()).toEqual([[1, 'First', false]]);
    await publish('Third');
    await server.restart();
    expect(await reports()).toEqual([
      [3, 'Third', false],
      [1, 'First', false],
    ]);
    await addItem(server.client, project, requirements, 'The gate shall lock');
    expect((await reports()).map(([, , stale]) => stale)).toEqual([true, true]);
  });

  it('leaves memory as the database is, also when memory cannot follow', async () => {
    const { project, requirements } = await makeProject(server.client);
    const item = await addItem(server.client, project, requirements, 'One');
    const state = await server.part(ProjectStates).get(project);
    state.follow(() => {
      throw new Error('A part of memory is broken');
    });
    const edited = await server.client.call(editItem, { params: { project, item: item.id }, body: { revision: item.revision, title: 'Two' } });
    expect(edited.title).toBe('Two');
    expect(await server.part(ProjectStates).get(project)).not.toBe(state);
    expect((await server.client.call(getOutline, { params: { project } })).title).toContain('Two');
    await addItem(server.client, project, requirements, 'Three');
    expect((await server.client.call(getOutline, { params: { project } })).title).toEqual(['Two', 'Three']);
  });

  it('numbers items once: in the same commit, after a restart, after undo', async () => {
    const { project } = await makeProject(server.client);
    const rows = Array.from({ length: 40 }, (_, index) => `G-${index + 1},The gate ${index + 1} shall close.`).join('\n');
    await importThrough(server.client, project, 'gates.csv', Buffer.from(`ID,Text\n${rows}\n`), {
      collection: { name: 'Gates', prefix: 'G', holds: 'specification' },
    });
    const nodes = async () => {
      const { reference, node } = await server.client.call(getOutline, { params: { project } });
      return reference.map((one, row) => [one, node[row]!] as const);
    };
    const before = await nodes();
    expect(before.map(([, node]) => node)).toEqual(Array.from({ length: 40 }, (_, index) => index));
    await server.restart();
    expect(await nodes()).toEqual(before);
    await server.client.call(undo, { params: { project } });
    const collection = (await makeProject(server.client)).project;
    expect(collection).not.toBe(project);
    await server.client.call(redo, { params: { project } });
    expect(await nodes()).toEqual(before);
  });
});
