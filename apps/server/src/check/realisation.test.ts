import { getRealisation, openFigure, withdrawItems } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

describe('realisation from the top', () => {
  const server = useServer();

  it('says of each layer what the next makes real, what only others do, and what nothing does; tests make nothing real', async () => {
    const { client } = server;
    const { project, requirements, design, tests } = await makeProject(client);
    const items = [];
    for (const title of ['Level', 'Flow', 'Noise']) items.push(await addItem(client, project, requirements, title));
    const [level, flow] = items as [(typeof items)[0], (typeof items)[0]];
    const gate = await addItem(client, project, design, 'Gate');
    await addItem(client, project, design, 'Idle');
    const test = await addItem(client, project, tests, 'Opens');
    await addLink(client, project, 'satisfies', gate, level);
    await addLink(client, project, 'verifies', test, flow);
    const read = () => client.call(getRealisation, { params: { project } });
    const say = async () =>
      (await read()).filter(({ items: count }) => count > 0).map(({ layer, next, byNext, below, none }) => [layer, next, byNext, below, none]);
    expect(await say()).toEqual([
      ['requirements', 'components', 1, 0, 2],
      ['components', null, 0, 0, 2],
    ]);
    expect((await read()).find(({ layer }) => layer === 'requirements')!.gaps).toEqual([{ collection: requirements, count: 2 }]);
    const open = async (figure: string) => (await client.call(openFigure, { params: { project, figure }, query: {} })).items.map(({ title }) => title);
    expect(await open('realised:requirements:none')).toEqual(['Flow', 'Noise']);
    expect(await open('realised:requirements:next')).toEqual(['Level']);
    await expect(open('realised:tests:none')).rejects.toMatchObject({ code: 'not-found' });
    await expect(open('realised:requirements:perhaps')).rejects.toMatchObject({ code: 'not-found' });
    // What is withdrawn makes nothing real.
    await client.call(withdrawItems, { params: { project }, body: { items: [gate.id] } });
    expect((await say())[0]).toEqual(['requirements', 'components', 0, 0, 3]);
  });
});
