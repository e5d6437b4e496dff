import {
  confirmLinks,
  createLinks,
  editItem,
  getItem,
  getOutline,
  getUndo,
  listChanges,
  listLinks,
  moveItem,
  redo,
  removeLinks,
  undo,
  withdrawItems,
} from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

describe('undo and redo', () => {
  const server = useServer();
  const titles = async (project: string) => (await server.client.call(getOutline, { params: { project } })).title;
  const links = async (project: string) => (await server.client.call(listLinks, { params: { project } })).id.length;
  const back = (project: string) => server.client.call(undo, { params: { project } });
  const again = (project: string) => server.client.call(redo, { params: { project } });

  it('walks back through every kind of change, and forward again', async () => {
    const { project, requirements, design } = await makeProject(server.client);
    const a = await addItem(server.client, project, requirements, 'A');
    const b = await addItem(server.client, project, requirements, 'B');
    const gate = await addItem(server.client, project, design, 'Gate');
    const link = await addLink(server.client, project, 'satisfies', gate, a);
    await server.client.call(editItem, { params: { project, item: a.id }, body: { revision: 1, title: 'A better' } });
    await server.client.call(moveItem, { params: { project, item: b.id }, body: { parent: null, after: null } });
    await server.client.call(removeLinks, { params: { project }, body: { links: [link] } });
    await server.client.call(withdrawItems, { params: { project }, body: { items: [a.id] } });
    expect(await titles(project)).toEqual(['B', 'Gate']);
    const states: [string[], number][] = [];
    for (let step = 0; step < 8; step++) {
      states.push([await titles(project), await links(project)]);
      await back(project);
    }
    expect(await titles(project)).toEqual([]);
    for (const [title, count] of states.reverse()) {
      await again(project);
      expect([await titles(project), await links(project)]).toEqual([title, count]);
    }
    await expect(again(project)).rejects.toMatchObject({ code: 'nothing-to-undo' });
  });

  it('takes back only what the person did', async () => {
    const { project, requirements } = await makeProject(server.client);
    await addItem(server.client, project, requirements, 'Mine');
    await addItem(server.as('Bo Reed'), project, requirements, 'Hers');
    expect((await back(project)).action).toBe('Add REQ-001');
    expect(await titles(project)).toEqual(['Hers']);
  });

  it('refuses to undo over what somebody changed since, and says what', async () => {
    const { project, requirements } = await makeProject(server.client);
    const item = await addItem(server.client, project, requirements, 'Level');
    await server.client.call(editItem, { params: { project, item: item.id }, body: { revision: 1, title: 'Level band' } });
    await server.as('Bo Reed').call(editItem, { params: { project, item: item.id }, body: { revision: 2, title: 'Level range' } });
    await expect(back(project)).rejects.toMatchObject({ code: 'undo-refused', message: expect.stringContaining('REQ-001 was changed since') });
    expect(await titles(project)).toEqual(['Level range']);
  });

  it('offers no redo once something new was done', async () => {
    const { project, requirements } = await makeProject(server.client);
    await addItem(server.client, project, requirements, 'One');
    await back(project);
    expect((await server.client.call(getUndo, { params: { project } })).redo).toBe('Add REQ-001');
    await addItem(server.client, project, requirements, 'Two');
    expect(await server.client.call(getUndo, { params: { project } })).toEqual({ undo: 'Add REQ-002', redo: null });
  });

  it('keeps every batch in the history, undone ones marked, newest first, page by page', async () => {
    const { project, requirements } = await makeProject(server.client);
    await addItem(server.client, project, requirements, 'One');
    await back(project);
    const changes = await server.client.call(listChanges, { params: { project } });
    expect(changes.map((batch) => [batch.seq, batch.action, batch.undone])).toEqual([
      [5, 'Undo: Add REQ-001', false],
      [4, 'Add REQ-001', true],
      [3, 'Add the collection Tests', false],
      [2, 'Add the collection Design', false],
      [1, 'Add the collection Requirements', false],
    ]);
    expect((await server.client.call(listChanges, { params: { project }, query: { before: 3, most: 1 } })).map((batch) => batch.seq)).toEqual([2]);
  });

  it('writes all of a batch or nothing', async () => {
    const { project, requirements, design } = await makeProject(server.client);
    const a = await addItem(server.client, project, requirements, 'A');
    const gate = await addItem(server.client, project, design, 'Gate');
    const call = server.client.call(createLinks, {
      params: { project },
      body: {
        links: [
          { linkKind: 'satisfies', from: gate.id, to: a.id },
          { linkKind: 'satisfies', from: a.id, to: gate.id },
        ],
      },
    });
    await expect(call).rejects.toMatchObject({ code: 'link-not-allowed' });
    expect(await links(project)).toBe(0);
  });

  it('holds after a restart: items, links, suspicion and what can be undone', async () => {
    const { project, requirements, design } = await makeProject(server.client);
    const a = await addItem(server.client, project, requirements, 'A');
    const gate = await addItem(server.client, project, design, 'Gate');
    await addLink(server.client, project, 'satisfies', gate, a);
    await server.client.call(editItem, { params: { project, item: a.id }, body: { revision: 1, title: 'A reworded' } });
    await server.restart();
    const sheet = await server.client.call(getItem, { params: { project, item: 'REQ-001' } });
    expect(sheet.downstream).toMatchObject([{ suspect: true, other: { reference: 'DES-001' } }]);
    expect((await back(project)).action).toBe('Edit title of REQ-001');
    expect((await server.client.call(getItem, { params: { project, item: 'REQ-001' } })).downstream).toMatchObject([{ suspect: false }]);
  });

  it('brings suspicion back with an undone confirmation', async () => {
    const { project, requirements, design } = await makeProject(server.client);
    const a = await addItem(server.client, project, requirements, 'A');
    const gate = await addItem(server.client, project, design, 'Gate');
    const link = await addLink(server.client, project, 'satisfies', gate, a);
    await server.client.call(editItem, { params: { project, item: a.id }, body: { revision: 1, title: 'A reworded' } });
    await server.client.call(confirmLinks, { params: { project }, body: { links: [link] } });
    const suspect = async () => (await server.client.call(listLinks, { params: { project } })).suspect;
    expect(await suspect()).toEqual([0]);
    await back(project);
    expect(await suspect()).toEqual([1]);
  });
});
