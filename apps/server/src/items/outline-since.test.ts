import {
  addFields,
  createCollection,
  createLinks,
  createWaiver,
  editItem,
  getOutline,
  getOutlineSince,
  listLinks,
  moveItem,
  type OutlineReply,
  removeLinks,
  restoreItems,
  undo,
  withdrawItems,
} from '@coomb/contract';
import { applyOutlineDifference } from '@coomb/core';
import { pick as choose, seeded } from '@coomb/core/testing';
import { describe, expect, it } from 'vitest';
import { addItem, makeProject, useServer } from '../testing/test-server.js';

describe('what changed in an outline', () => {
  const server = useServer();
  const whole = (project: string) => server.client.call(getOutline, { params: { project } });
  const since = (project: string, { seq, day, life }: Pick<OutlineReply, 'seq' | 'day' | 'life'>) =>
    server.client.call(getOutlineSince, { params: { project }, query: { seq, day, life } });
  /** The outline as a page has it that asks for differences only. */
  async function follow(project: string, shown: OutlineReply): Promise<OutlineReply> {
    const told = await since(project, shown);
    if (told.whole) return whole(project);
    return { ...applyOutlineDifference(shown, told.difference!), seq: told.seq, day: told.day };
  }

  it.each([1, 2])('put into the one that a page shows gives the whole outline, whatever changes and however far behind (seed %i)', async (seed) => {
    const random = seeded(seed);
    const { client } = server;
    const { project, requirements, tests } = await makeProject(client);
    const items: string[] = [];
    for (let i = 0; i < 10; i++) items.push((await addItem(client, project, i % 3 === 2 ? tests : requirements, `Item ${i}`)).id);
    const pages = [await whole(project), await whole(project)];
    const some = () => choose(random, items);
    const steps: (() => Promise<unknown>)[] = [
      async () => items.push((await addItem(client, project, requirements, 'New', { parent: random() < 0.5 ? null : some() })).id),
      () => client.call(editItem, { params: { project, item: some() }, body: { revision: 1, title: `T ${random()}` } }),
      () => client.call(moveItem, { params: { project, item: some() }, body: { parent: random() < 0.5 ? null : some(), after: null } }),
      () => client.call(withdrawItems, { params: { project }, body: { items: [some()] } }),
      () => client.call(restoreItems, { params: { project }, body: { items: [some()] } }),
      () =>
        client.call(createLinks, { params: { project }, body: { links: [{ linkKind: choose(random, ['verifies', 'derives']), from: some(), to: some() }] } }),
      async () => {
        const { id } = await client.call(listLinks, { params: { project }, query: {} });
        if (id.length > 0) await client.call(removeLinks, { params: { project }, body: { links: [choose(random, id)] } });
      },
      () => client.call(createWaiver, { params: { project }, body: { item: some(), rule: 'tested', reason: 'Agreed for now' } }),
      () => client.call(undo, { params: { project } }),
    ];
    let differences = 0;
    for (let step = 0; step < 70; step++) {
      await choose(random, steps)().catch(() => {});
      // One page follows every change, the other lags behind by several.
      for (const [at, page] of pages.entries()) {
        if (at === 1 && step % 6 !== 5) continue;
        const told = await since(project, page);
        if (!told.whole) differences++;
        pages[at] = await follow(project, page);
        expect(pages[at]).toEqual(await whole(project));
      }
    }
    expect(differences).toBeGreaterThan(60);
  });

  it('is as short as the change, and nothing where nothing changed', async () => {
    const { project, requirements } = await makeProject(server.client);
    for (let i = 0; i < 30; i++) await addItem(server.client, project, requirements, `Item ${i}`);
    const shown = await whole(project);
    expect((await since(project, shown)).difference).toMatchObject({ order: null, rows: { node: [] } });
    const item = await addItem(server.client, project, requirements, 'One more');
    const { difference } = await since(project, shown);
    expect(difference).toMatchObject({ order: { at: 30, remove: 0, insert: [item.node] }, rows: { node: [item.node], title: ['One more'] } });
  });

  it('is the whole where it cannot be told: too far back, of another life, or where kinds or collections are counted otherwise', async () => {
    const { project, requirements } = await makeProject(server.client);
    await addItem(server.client, project, requirements, 'One');
    const shown = await whole(project);
    expect((await since(project, { ...shown, life: 'another' })).whole).toBe(true);
    expect((await since(project, { ...shown, seq: 1 })).whole).toBe(true);
    await server.client.call(addFields, { params: { project }, body: { fields: [{ kind: 'requirement', label: 'Depth', type: 'number' }] } });
    expect((await since(project, shown)).whole).toBe(false);
    await server.client.call(createCollection, { params: { project }, body: { name: 'Needs', holds: 'specification', prefix: 'N', kind: 'need' } });
    expect((await since(project, shown)).whole).toBe(true);
    const again = await whole(project);
    await server.restart();
    expect((await since(project, again)).whole).toBe(false);
  });
});
