import { createItem, editItem, getHistory, getItem, getOutline, moveItem, readCollection, restoreItems, withdrawItems } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, makeProject, useServer } from '../testing/test-server.js';

describe('items', () => {
  const server = useServer();

  it('gives the next reference of the collection, and never one that was used before', async () => {
    const { project, requirements } = await makeProject(server.client);
    const first = await addItem(server.client, project, requirements, 'First');
    const second = await addItem(server.client, project, requirements, 'Second');
    await server.client.call(withdrawItems, { params: { project }, body: { items: [second.id] } });
    const third = await addItem(server.client, project, requirements, 'Third');
    expect([first.reference, second.reference, third.reference]).toEqual(['REQ-001', 'REQ-002', 'REQ-003']);
  });

  it('keeps items in the order people put them', async () => {
    const { project, requirements } = await makeProject(server.client);
    const a = await addItem(server.client, project, requirements, 'A');
    const c = await addItem(server.client, project, requirements, 'C');
    const b = await server.client.call(createItem, { params: { project }, body: { collection: requirements, title: 'B', after: a.id } });
    const titles = async () => (await server.client.call(getOutline, { params: { project } })).title;
    expect(await titles()).toEqual(['A', 'B', 'C']);
    await server.client.call(moveItem, { params: { project, item: c.id }, body: { parent: null, after: null } });
    expect(await titles()).toEqual(['C', 'A', 'B']);
    await server.client.call(moveItem, { params: { project, item: b.id }, body: { parent: a.id, after: null } });
    const outline = await server.client.call(getOutline, { params: { project } });
    expect(outline.title.map((title, row) => [title, outline.parent[row]])).toEqual([
      ['C', -1],
      ['A', -1],
      ['B', 1],
    ]);
  });

  it('finds room between two items a hundred times over', async () => {
    const { project, requirements } = await makeProject(server.client);
    const first = await addItem(server.client, project, requirements, 'First');
    await addItem(server.client, project, requirements, 'Last');
    for (let i = 0; i < 70; i++)
      await server.client.call(createItem, { params: { project }, body: { collection: requirements, title: `n${i}`, after: first.id } });
    const { title } = await server.client.call(getOutline, { params: { project } });
    expect(title[0]).toBe('First');
    expect(title.at(-1)).toBe('Last');
    expect(title.slice(1, -1)).toEqual(Array.from({ length: 70 }, (_, i) => `n${69 - i}`));
  });

  it('refuses to move an item below itself', async () => {
    const { project, requirements } = await makeProject(server.client);
    const parent = await addItem(server.client, project, requirements, 'Parent');
    const child = await addItem(server.client, project, requirements, 'Child', { parent: parent.id });
    await expect(server.client.call(moveItem, { params: { project, item: parent.id }, body: { parent: child.id, after: null } })).rejects.toMatchObject({
      code: 'move-refused',
    });
  });

  it('guards an edit against overwriting what somebody else just saved', async () => {
    const { project, requirements } = await makeProject(server.client);
    const item = await addItem(server.client, project, requirements, 'Sluice');
    await server.as('Bo Reed').call(editItem, { params: { project, item: item.id }, body: { revision: item.revision, title: 'Sluice gate' } });
    const clash = server.client.call(editItem, { params: { project, item: item.id }, body: { revision: item.revision, title: 'Sluice door' } });
    await expect(clash).rejects.toMatchObject({ code: 'changed-meanwhile', message: expect.stringContaining('Bo Reed'), details: { revision: 2 } });
  });

  it('sanitises rich text wherever it comes in', async () => {
    const { project, requirements } = await makeProject(server.client);
    const html = '<p onclick="x()">Safe <script>alert(1)</script><img src="https://elsewhere.example/x.png"><a href="javascript:x()">link</a></p>';
    const made = await addItem(server.client, project, requirements, 'Hostile', { html });
    expect(made.html).toBe('<p>Safe <a>link</a></p>');
    const edited = await server.client.call(editItem, {
      params: { project, item: made.id },
      body: { revision: 1, html: '<b>bold</b><iframe src="/"></iframe>' },
    });
    expect(edited.html).toBe('<strong>bold</strong>');
  });

  it('tells the history word by word, with who and when', async () => {
    const { project, requirements } = await makeProject(server.client);
    const item = await addItem(server.client, project, requirements, 'Level', { html: '<p>within 5 cm of the mark</p>' });
    await server
      .as('Bo Reed')
      .call(editItem, { params: { project, item: item.id }, body: { revision: 1, html: '<p>within 4 cm of the mark</p>', fields: { priority: 'High' } } });
    const [newest, oldest] = await server.client.call(getHistory, { params: { project, item: item.reference } });
    expect(newest).toMatchObject({ person: 'Bo Reed', action: `Edit text, priority of ${item.reference}`, revision: 2 });
    expect(newest!.changes.find((change) => change.field === 'Text')!.words).toEqual([
      { type: 'same', text: 'within ' },
      { type: 'removed', text: '5' },
      { type: 'added', text: '4' },
      { type: 'same', text: ' cm of the mark' },
    ]);
    expect(oldest).toMatchObject({ person: 'Ada Wick', action: `Add ${item.reference}` });
  });

  it('withdraws what stands below as well, and restores what is asked', async () => {
    const { project, requirements } = await makeProject(server.client);
    const parent = await addItem(server.client, project, requirements, 'Parent');
    const child = await addItem(server.client, project, requirements, 'Child', { parent: parent.id });
    await server.client.call(withdrawItems, { params: { project }, body: { items: [parent.id] } });
    expect((await server.client.call(getOutline, { params: { project } })).id).toEqual([]);
    expect((await server.client.call(getItem, { params: { project, item: child.reference } })).withdrawn).toBe(true);
    await server.client.call(restoreItems, { params: { project }, body: { items: [child.id] } });
    expect((await server.client.call(getOutline, { params: { project } })).title).toEqual(['Child']);
  });

  it('reads a collection page by page', async () => {
    const { project, requirements } = await makeProject(server.client);
    for (let i = 1; i <= 5; i++) await addItem(server.client, project, requirements, `Item ${i}`, { html: `<p>${i}</p>` });
    const page = await server.client.call(readCollection, { params: { project, collection: requirements }, query: { offset: 2, limit: 2 } });
    expect(page.total).toBe(5);
    expect(page.items.map((item) => item.html)).toEqual(['<p>3</p>', '<p>4</p>']);
  });

  it('says which field of the input is wrong', async () => {
    const { project, requirements } = await makeProject(server.client);
    const call = server.client.call(createItem, { params: { project }, body: { collection: requirements, title: '  ' } });
    await expect(call).rejects.toMatchObject({ code: 'input-invalid', message: expect.stringContaining('title') });
    await expect(server.client.call(getItem, { params: { project, item: 'REQ-777' } })).rejects.toMatchObject({
      code: 'not-found',
      message: expect.stringContaining('REQ-777'),
    });
  });
});
