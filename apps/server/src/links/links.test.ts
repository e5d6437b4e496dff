import {
  confirmLinks,
  createLinks,
  editItem,
  getItem,
  getLinkDifference,
  getTrace,
  listLinks,
  moveItem,
  planLinks,
  refuseSuggestions,
  removeLinks,
  suggestLinks,
  undo,
  withdrawItems,
} from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

describe('links', () => {
  const server = useServer();

  it('joins only kinds that may be joined, each pair once', async () => {
    const { client } = server;
    const { project, requirements, design, tests } = await makeProject(client);
    const level = await addItem(client, project, requirements, 'Level');
    const gate = await addItem(client, project, design, 'Gate');
    const test = await addItem(client, project, tests, 'Opens');
    await addLink(client, project, 'satisfies', gate, level);
    const make = (linkKind: string, from: string, to: string) => client.call(createLinks, { params: { project }, body: { links: [{ linkKind, from, to }] } });
    await expect(make('satisfies', gate.id, level.id)).rejects.toMatchObject({ code: 'link-exists', message: 'DES-001 satisfies REQ-001 already.' });
    await expect(make('satisfies', level.id, gate.id)).rejects.toMatchObject({
      code: 'link-not-allowed',
      message: '"satisfies" does not join requirement REQ-001 with component DES-001.',
    });
    await expect(make('verifies', test.id, test.id)).rejects.toMatchObject({ code: 'link-not-allowed' });
    await expect(make('imagines', test.id, level.id)).rejects.toMatchObject({ code: 'input-invalid', message: expect.stringContaining('verifies') });
    const skipping = { links: [{ linkKind: 'imagines', from: test.id, to: level.id }], skipRefused: true };
    expect(await client.call(createLinks, { params: { project }, body: skipping })).toMatchObject({ ids: [] });
    await client.call(withdrawItems, { params: { project }, body: { items: [level.id] } });
    await expect(make('verifies', test.id, level.id)).rejects.toMatchObject({ message: expect.stringContaining('withdrawn') });
  });

  it('shows the trail up and down, read from where one stands', async () => {
    const { client } = server;
    const { project, requirements, design, tests } = await makeProject(client);
    const top = await addItem(client, project, requirements, 'Top');
    const level = await addItem(client, project, requirements, 'Level');
    const gate = await addItem(client, project, design, 'Gate');
    const test = await addItem(client, project, tests, 'Opens');
    await addLink(client, project, 'derives', level, top);
    await addLink(client, project, 'satisfies', gate, level);
    await addLink(client, project, 'verifies', test, level);
    const sheet = await client.call(getItem, { params: { project, item: level.id } });
    const show = (links: typeof sheet.upstream) => links.map((link) => `${link.phrase} ${link.other.reference}`).sort();
    expect(show(sheet.upstream)).toEqual(['is derived from REQ-001']);
    expect(show(sheet.downstream)).toEqual(['is satisfied by DES-001', 'is verified by TC-001']);
    const trace = await client.call(getTrace, { params: { project, item: top.id } });
    expect(trace.up).toEqual([]);
    expect(trace.down.map(([, distance]) => distance)).toEqual([1, 2, 2]);
  });

  it('lists the links between two sides, by collection or kind', async () => {
    const { client } = server;
    const { project, requirements, design, tests } = await makeProject(client);
    const level = await addItem(client, project, requirements, 'Level');
    const gate = await addItem(client, project, design, 'Gate');
    const test = await addItem(client, project, tests, 'Opens');
    await addLink(client, project, 'satisfies', gate, level);
    await addLink(client, project, 'verifies', test, level);
    const count = async (left: string, right: string) => (await client.call(listLinks, { params: { project }, query: { left, right } })).id.length;
    expect([await count(requirements, design), await count(design, requirements), await count(requirements, tests), await count(design, tests)]).toEqual([
      1, 1, 1, 0,
    ]);
    expect(await count('requirement', 'component,testCase')).toBe(2);
  });

  it('becomes suspect when an end changes its meaning, not when it moves, until somebody confirms it', async () => {
    const { client } = server;
    const { project, requirements, design } = await makeProject(client);
    const level = await addItem(client, project, requirements, 'Level', { html: '<p>within 5 cm</p>' });
    const other = await addItem(client, project, requirements, 'Other');
    const gate = await addItem(client, project, design, 'Gate');
    const link = await addLink(client, project, 'satisfies', gate, level);
    const suspect = async () => (await client.call(listLinks, { params: { project } })).suspect[0];
    await client.call(moveItem, { params: { project, item: level.id }, body: { parent: null, after: other.id } });
    await client.call(editItem, { params: { project, item: level.id }, body: { revision: 2, fields: { priority: 'High' } } });
    expect(await suspect()).toBe(0);
    await server.as('Bo Reed').call(editItem, { params: { project, item: level.id }, body: { revision: 3, html: '<p>within 4 cm</p>' } });
    expect(await suspect()).toBe(1);
    const difference = await client.call(getLinkDifference, { params: { project, link } });
    expect(difference).toMatchObject({ confirmedBy: 'Ada Wick', ends: [{ item: { reference: 'REQ-001' }, changedBy: 'Bo Reed' }] });
    expect(difference.ends[0]!.words.filter((word) => word.type !== 'same').map((word) => word.text)).toEqual(['5', '4']);
    await client.call(confirmLinks, { params: { project }, body: { links: [link] } });
    expect(await suspect()).toBe(0);
    expect((await client.call(getLinkDifference, { params: { project, link } })).ends).toEqual([]);
  });

  it('removes many at once, and says when some are gone already', async () => {
    const { client } = server;
    const { project, requirements, tests } = await makeProject(client);
    const level = await addItem(client, project, requirements, 'Level');
    const ids = [];
    for (const title of ['One', 'Two', 'Three']) ids.push(await addLink(client, project, 'verifies', await addItem(client, project, tests, title), level));
    await client.call(removeLinks, { params: { project }, body: { links: ids.slice(0, 2) } });
    await expect(client.call(removeLinks, { params: { project }, body: { links: ids } })).rejects.toMatchObject({
      code: 'not-found',
      message: expect.stringContaining('2 of 3'),
    });
    expect((await client.call(listLinks, { params: { project } })).id).toEqual([ids[2]]);
  });

  it('suggests likely ends with the words they share, leaving out what is linked', async () => {
    const { client } = server;
    const { project, requirements, design } = await makeProject(client);
    const level = await addItem(client, project, requirements, 'Hold the pool level', { html: '<p>The weir control shall hold the pool level.</p>' });
    const control = await addItem(client, project, design, 'Weir control');
    await addItem(client, project, design, 'Siren');
    const regulator = await addItem(client, project, design, 'Level regulator');
    const suggest = async () =>
      (await client.call(suggestLinks, { params: { project, item: level.id }, query: { collection: design } })).map((one) => one.item.id);
    expect(await suggest()).toEqual([control.id, regulator.id]);
    await addLink(client, project, 'satisfies', control, level);
    expect(await suggest()).toEqual([regulator.id]);
  });

  it('says why, in the words of the item, and learns from each link that is made', async () => {
    const { client } = server;
    const { project, requirements, design } = await makeProject(client);
    const suggest = (item: { id: string }) => client.call(suggestLinks, { params: { project, item: item.id }, query: { collection: design } });
    const first = await addItem(client, project, requirements, 'Openings', { html: '<p>Gates are opening within 20 s.</p>' });
    const second = await addItem(client, project, requirements, 'Gates close', { html: '<p>Gates are closing at once.</p>' });
    const drive = await addItem(client, project, design, 'Drive', { html: '<p>Opens in 20 s.</p>' });
    const rail = await addItem(client, project, design, 'Rail');
    const [best] = await suggest(first);
    expect(best).toMatchObject({ item: { id: drive.id }, likelihood: null });
    // As the requirement writes them, though the design writes "opens".
    expect(best!.reasons[0]).toEqual({ sort: 'words', words: expect.arrayContaining(['20 s', 'openings']) });
    expect(best!.shared).toContain('20 s');
    expect((await suggest(second)).map(({ item }) => item.id)).not.toContain(rail.id);
    await addLink(client, project, 'satisfies', rail, first);
    // What is linked with a requirement like it, which no word leads to.
    expect((await suggest(second)).find(({ item }) => item.id === rail.id)!.reasons).toContainEqual({
      sort: 'alike',
      like: expect.objectContaining({ reference: first.reference }),
    });
    await client.call(editItem, { params: { project, item: rail.id }, body: { revision: 1, html: '<p>Closing gates run on it.</p>' } });
    expect((await suggest(second)).find(({ item }) => item.id === rail.id)!.shared).toEqual(expect.arrayContaining(['gates', 'close']));
  });

  it('suggests within one collection what is linked neither way, nor the item itself', async () => {
    const { client } = server;
    const { project, requirements } = await makeProject(client);
    const add = (title: string) => addItem(client, project, requirements, title);
    const [gate, drive, brake, lamp] = [await add('Gate moves'), await add('Gate drive moves'), await add('Gate brake'), await add('Gate lamp')];
    await addLink(client, project, 'derives', drive, gate);
    await addLink(client, project, 'derives', brake, drive);
    const suggest = async (item: { id: string }) =>
      (await client.call(suggestLinks, { params: { project, item: item.id }, query: { collection: requirements } })).map((one) => one.item.id);
    expect((await suggest(drive)).toSorted()).toEqual([lamp.id]);
    expect((await suggest(gate)).toSorted()).toEqual([brake.id, lamp.id].toSorted());
  });

  it('says what linking each with each would make, kind by kind, and makes what may be made', async () => {
    const { client } = server;
    const { project, requirements, design, tests } = await makeProject(client);
    const [level, flow] = [await addItem(client, project, requirements, 'Level'), await addItem(client, project, requirements, 'Flow')];
    const gate = await addItem(client, project, design, 'Gate');
    const test = await addItem(client, project, tests, 'Opens');
    await addLink(client, project, 'verifies', test, level);
    const plan = (left: string[], right: string[]) => client.call(planLinks, { params: { project }, body: { left, right } });
    expect(await plan([level.id, flow.id], [test.id])).toEqual([
      { linkKind: 'verifies', reversed: true, makes: 1, refused: 1, says: ['TC-001 verifies REQ-001 already.'] },
    ]);
    expect(await plan([level.id], [level.id])).toEqual([
      { linkKind: 'derives', reversed: false, makes: 0, refused: 1, says: ['REQ-001 cannot be linked to itself.'] },
      { linkKind: 'derives', reversed: true, makes: 0, refused: 1, says: ['REQ-001 cannot be linked to itself.'] },
    ]);
    // What is of other kinds is refused one by one, and the rest made.
    const mixed = await plan([test.id], [flow.id, gate.id, test.id]);
    expect(mixed).toEqual([{ linkKind: 'verifies', reversed: false, makes: 2, refused: 1, says: [expect.stringContaining('itself')] }]);
    const links = [flow, gate, level].map((to) => ({ linkKind: 'verifies', from: test.id, to: to.id }));
    await expect(client.call(createLinks, { params: { project }, body: { links } })).rejects.toMatchObject({ code: 'link-exists' });
    const { ids } = await client.call(createLinks, { params: { project }, body: { links, skipRefused: true } });
    expect(ids).toHaveLength(2);
    const twice = [0, 1].map(() => ({ linkKind: 'satisfies', from: gate.id, to: flow.id }));
    await expect(client.call(createLinks, { params: { project }, body: { links: twice } })).rejects.toMatchObject({
      message: expect.stringContaining('twice'),
    });
    await expect(plan(Array(80).fill(test.id), Array(80).fill(flow.id))).rejects.toMatchObject({ code: 'input-invalid' });
  });

  it('suggests no more what was refused, until one of the two says something else', async () => {
    const { client } = server;
    const { project, requirements, tests } = await makeProject(client);
    const level = await addItem(client, project, requirements, 'Pool level', { html: '<p>The pool level stays within its band.</p>' });
    await addItem(client, project, requirements, 'Lantern');
    const hold = await addItem(client, project, tests, 'Hold the pool level', { html: '<p>Watch the pool level for a day.</p>' });
    await addItem(client, project, tests, 'Light the lantern');
    const suggest = async () =>
      (await server.client.call(suggestLinks, { params: { project, item: level.id }, query: { collection: tests } })).map(({ item }) => item.reference);
    expect(await suggest()).toContain('TC-001');
    const refuse = () => server.client.call(refuseSuggestions, { params: { project }, body: { pairs: [{ item: level.id, other: hold.id }] } });
    await refuse();
    expect(await suggest()).not.toContain('TC-001');
    expect((await refuse()).ids).toEqual([]);
    await server.restart();
    expect(await suggest()).not.toContain('TC-001');
    // The other way round it is refused as well.
    const back = await server.client.call(suggestLinks, { params: { project, item: hold.id }, query: { collection: requirements } });
    expect(back.map(({ item }) => item.reference)).not.toContain('REQ-001');
    await server.client.call(undo, { params: { project } });
    expect(await suggest()).toContain('TC-001');
    await refuse();
    await server.client.call(editItem, { params: { project, item: hold.id }, body: { revision: 1, title: 'Hold the pool level for a day' } });
    expect(await suggest()).toContain('TC-001');
  });
});
