import { changeItems, getItem, getOutline, undo, withdrawItems } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

describe('changing many items', () => {
  const server = useServer();

  it('sets a field of all that have it as one undo, tells of those that have not, and makes links suspect where it bears meaning', async () => {
    const { client } = server;
    const { project, requirements, design, tests } = await makeProject(client);
    const [level, flow] = [await addItem(client, project, requirements, 'Level'), await addItem(client, project, requirements, 'Flow')];
    const gate = await addItem(client, project, design, 'Gate');
    const test = await addItem(client, project, tests, 'Opens');
    await addLink(client, project, 'verifies', test, level);
    const items = [level.id, flow.id, gate.id];
    const change = { sort: 'field' as const, field: 'priority', value: 'High' };
    const call = (more: object = {}) => client.call(changeItems, { params: { project }, body: { items, change, ...more } });
    const priority = async () =>
      Promise.all([level, flow].map(async ({ id }) => (await client.call(getItem, { params: { project, item: id } })).fields.priority));
    expect(await call({ dryRun: true })).toMatchObject({ changed: 2, refused: [{ item: gate.id, says: 'DES-001 has no such field' }] });
    await expect(call()).rejects.toMatchObject({ code: 'input-invalid', message: expect.stringContaining('DES-001 has no such field') });
    expect(await priority()).toEqual([undefined, undefined]);
    expect(await call({ skipRefused: true })).toMatchObject({ changed: 2 });
    expect(await priority()).toEqual(['High', 'High']);
    expect(await call({ skipRefused: true })).toMatchObject({ changed: 0, ids: [] });
    await client.call(undo, { params: { project } });
    expect(await priority()).toEqual([undefined, undefined]);
    const wrong = { items: [level.id], change: { sort: 'field' as const, field: 'priority', value: 7 } };
    await expect(client.call(changeItems, { params: { project }, body: wrong })).rejects.toMatchObject({ code: 'input-invalid' });
  });

  it('moves items behind what stands below a section, in their order, with what stands below them', async () => {
    const { client } = server;
    const { project, requirements, design } = await makeProject(client);
    const section = await addItem(client, project, requirements, 'Movement', { heading: true });
    const there = await addItem(client, project, requirements, 'There', { parent: section.id });
    const [a, b] = [await addItem(client, project, requirements, 'A'), await addItem(client, project, requirements, 'B')];
    const below = await addItem(client, project, requirements, 'Below A', { parent: a.id });
    const other = await addItem(client, project, design, 'Gate');
    const order = async () => {
      const outline = await client.call(getOutline, { params: { project } });
      return outline.title.map((title, row) => `${outline.parent[row]! >= 0 ? `${outline.title[outline.parent[row]!]}/` : ''}${title}`);
    };
    const move = (items: string[], to: string | null, more: object = {}) =>
      client.call(changeItems, { params: { project }, body: { items, change: { sort: 'move', below: to }, ...more } });
    expect(await move([b.id, a.id, below.id, other.id, there.id], section.id, { skipRefused: true })).toMatchObject({
      changed: 2,
      refused: [{ item: other.id, says: 'DES-001 and REQ-001 stand in different collections' }],
    });
    expect(await order()).toEqual(['Movement', 'Movement/There', 'Movement/A', 'A/Below A', 'Movement/B', 'Gate']);
    await expect(move([section.id], below.id)).rejects.toMatchObject({ message: expect.stringContaining('below itself') });
    await client.call(undo, { params: { project } });
    expect(await order()).toEqual(['Movement', 'Movement/There', 'A', 'A/Below A', 'B', 'Gate']);
    await move([there.id], null);
    expect((await order()).at(-2)).toBe('There');
    await client.call(withdrawItems, { params: { project }, body: { items: [b.id] } });
    await expect(move([b.id], section.id)).rejects.toMatchObject({ message: expect.stringContaining('is withdrawn') });
  });
});
