import {
  changeScheme,
  createItem,
  editLink,
  getItem,
  getProject,
  listChanges,
  makeGroups,
  orderStructure,
  proposeStructure,
  readLinkNumbers,
  undo,
  withdrawItems,
} from '@coomb/contract';
import { seeded } from '@coomb/core/testing';
import { describe, expect, it } from 'vitest';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';
import { coverSolver, loadSolver, writeCover } from './cover-solver.js';

/** Dependencies among things that stand in a line, some of which point the wrong way. */
function dependencies(seed: number, nodes: number, count: number, feedback: number) {
  const random = seeded(seed);
  const found = new Map<string, [number, number]>();
  while (found.size < count) {
    const [a, b] = [Math.floor(random() * nodes), Math.floor(random() * nodes)].toSorted((x, y) => x - y) as [number, number];
    if (a === b) continue;
    const pair: [number, number] = random() < feedback ? [a, b] : [b, a];
    found.set(pair.join(' '), pair);
  }
  const pairs = [...found.values()];
  return { nodes, from: pairs.map(([a]) => a), to: pairs.map(([, b]) => b), weight: pairs.map(() => 1) };
}

describe('structures', () => {
  const server = useServer();

  it('are ordered with the fewest feedback marks, proven', async () => {
    const { project } = await makeProject(server.client);
    const body = dependencies(1, 60, 180, 0.1);
    const found = await server.client.call(orderStructure, { params: { project }, body: { ...body, seconds: 60 } });
    expect(found.weight).toBe(found.bound);
    expect(found.weight).toBeGreaterThan(0);
    const place = new Map(found.order.map((node, at) => [node, at]));
    const back = body.from.filter((node, at) => place.get(node)! < place.get(body.to[at]!)!).length;
    expect(back).toBe(found.weight);
    expect(found.blocks.flatMap(({ feedback }) => feedback)).toHaveLength(back);
    expect(found.order.toSorted((a, b) => a - b)).toEqual(Array.from({ length: 60 }, (_, at) => at));
    const again = await server.client.call(orderStructure, { params: { project }, body: { ...body, seconds: 60 } });
    expect(again.order).toEqual(found.order);
  });

  it('are grouped, with what all others are tied with set apart', async () => {
    const { project } = await makeProject(server.client);
    const pairs = Array.from({ length: 4 }, (_, group) => Array.from({ length: 8 }, (__, at) => [group * 8 + at, group * 8 + ((at + 1) % 8)])).flat();
    const more = Array.from({ length: 4 }, (_, group) => Array.from({ length: 8 }, (__, at) => [group * 8 + at, group * 8 + ((at + 3) % 8)])).flat();
    const bus = Array.from({ length: 32 }, (_, at) => [at, 32]);
    const all = [...pairs, ...more, ...bus];
    const body = { nodes: 33, from: all.map(([a]) => a!), to: all.map(([, b]) => b!), weight: all.map(() => 1) };
    const found = await server.client.call(proposeStructure, { params: { project }, body });
    expect(found.shared).toEqual([32]);
    expect(found.count).toBe(4);
    expect(found.group).toEqual([...Array.from({ length: 32 }, (_, at) => Math.floor(at / 8)), -1]);
    expect(found.bits).toBeLessThan(found.bitsOfOne);
  });

  it('are refused with what is wrong', async () => {
    const { project } = await makeProject(server.client);
    const order = (body: object) =>
      server.client.call(orderStructure, { params: { project }, body: { nodes: 2, from: [0], to: [1], weight: [1], ...body } as never });
    await expect(order({ to: [2] })).rejects.toMatchObject({ message: 'Dependency 1 leads from 0 to 2; there are 2 things, numbered from 0.' });
    await expect(order({ to: [0] })).rejects.toMatchObject({ message: 'Dependency 1 leads from 0 to itself.' });
    await expect(order({ weight: [] })).rejects.toMatchObject({ code: 'input-invalid' });
    await expect(order({ from: [0, 0], to: [1, 1], weight: [1, 1] })).rejects.toMatchObject({ message: expect.stringContaining('twice') });
    await expect(order({ weight: [0] })).rejects.toMatchObject({ code: 'input-invalid' });
  });

  it('stop when the caller goes, and the next is answered', async () => {
    const { project } = await makeProject(server.client);
    const abort = new AbortController();
    const body = JSON.stringify({ ...dependencies(2, 800, 4000, 0.1), seconds: 60 });
    const headers = { 'Content-Type': 'application/json' };
    const long = fetch(`${server.address}/api/projects/${project}/structure/order`, { method: 'POST', body, headers, signal: abort.signal });
    setTimeout(() => abort.abort(), 1500);
    await expect(long).rejects.toThrow();
    const begin = performance.now();
    const found = await server.client.call(orderStructure, { params: { project }, body: { nodes: 2, from: [0], to: [1], weight: [1] } });
    expect(found.order).toEqual([1, 0]);
    expect(performance.now() - begin).toBeLessThan(30_000);
  });

  it('are told to the solver as edges of which each cut holds one', () => {
    expect(writeCover(Float64Array.from([2, 1, 3]), [Int32Array.from([0, 2]), Int32Array.from([2])])).toBe(
      ['Minimize', ' obj: 2 e0 + 3 e2', 'Subject To', ' c0: e0 + e2 >= 1', ' c1: e2 >= 1', 'Binary', ' e0 e2', 'End'].join('\n'),
    );
  });

  it('are covered whole, in parts, or told that all covers are too dear', async () => {
    const solve = coverSolver(await loadSolver());
    // Any two of three edges cover three cycles of two each; so do halves of all.
    const [weight, cuts] = [
      Float64Array.from([1, 1, 1]),
      [
        [0, 1],
        [1, 2],
        [2, 0],
      ].map((cut) => Int32Array.from(cut)),
    ];
    expect(solve(weight, cuts, { seconds: 5 })).toMatchObject({ bound: 2, share: [1, 1] });
    expect(solve(weight, cuts, { seconds: 5, inParts: true })).toEqual({ chosen: [0, 1, 2], share: [0.5, 0.5, 0.5], bound: 1.5 });
    expect(solve(weight, cuts, { seconds: 5, atMost: 1 })).toEqual({ chosen: [], share: [], bound: Number.POSITIVE_INFINITY });
    expect(solve(weight, [], { seconds: 5 })).toEqual({ chosen: [], share: [], bound: 0 });
  });

  it('are weighed by numbers that links say in a field, for as long as both ends are there', async () => {
    const { client } = server;
    const { project, requirements, tests } = await makeProject(client);
    const level = await addItem(client, project, requirements, 'Level');
    const test = await addItem(client, project, tests, 'Opens');
    const link = await addLink(client, project, 'verifies', test, level);
    const body = { label: 'Load', type: 'number' as const, kinds: [], linkKinds: ['verifies'] };
    await client.call(changeScheme, {
      params: { project },
      body: { edits: [{ sort: 'field', key: 'load', rank: 50, retired: false, revision: null, body }] } as never,
    });
    const read = (field = 'load') => client.call(readLinkNumbers, { params: { project, field } });
    const before = await read();
    expect(before).toMatchObject({ from: [], to: [], kind: [], number: [] });
    await client.call(editLink, { params: { project, link }, body: { revision: 1, fields: { load: 2.5 } } });
    const now = await read();
    expect(now.number).toEqual([2.5]);
    expect([now.from.length, now.to.length, now.kind.length]).toEqual([1, 1, 1]);
    await client.call(withdrawItems, { params: { project }, body: { items: [test.id] } });
    expect((await read()).number).toEqual([]);
    await expect(read('priority')).rejects.toMatchObject({ code: 'not-found' });
  });

  it('become items with links to what is in each group, in one change; what may not be linked so is told', async () => {
    const { client } = server;
    const { project, design, requirements } = await makeProject(client);
    const functions = [];
    for (const title of ['Sense level', 'Sense flow', 'Move gate'])
      functions.push(await client.call(createItem, { params: { project }, body: { collection: design, kind: 'function', title } }));
    const other = await addItem(client, project, requirements, 'Level');
    const [a, b, c] = functions.map(({ id }) => id) as [string, string, string];
    const wish = { kind: 'component', linkKind: 'allocated', reversed: false, collection: design };
    const groups = [
      { title: 'Sensing', items: [a, b, other.id] },
      { title: 'Drive', items: [c, c] },
    ];
    const make = (more: object = {}) => client.call(makeGroups, { params: { project }, body: { ...wish, groups, ...more } as never });
    expect(await make({ dryRun: true })).toMatchObject({
      items: [],
      links: 3,
      refused: [{ item: other.id, says: expect.stringContaining('does not join REQ-001') }],
    });
    const before = (await client.call(getProject, { params: { project } })).collections.find(({ id }) => id === design)!.items;
    const made = await make();
    expect(made.links).toBe(3);
    expect(new Set(made.items.map(({ reference }) => reference)).size).toBe(2);
    const sheets = await Promise.all(made.items.map(({ id }) => client.call(getItem, { params: { project, item: id } })));
    expect(sheets.map(({ title, upstream, downstream }) => [title, [...upstream, ...downstream].map((link) => link.other.title).toSorted()])).toEqual([
      ['Sensing', ['Sense flow', 'Sense level']],
      ['Drive', ['Move gate']],
    ]);
    expect((await client.call(listChanges, { params: { project }, query: {} }))[0]!.action).toBe('Make 2 items of groups, with 3 links');
    await client.call(undo, { params: { project } });
    expect((await client.call(getProject, { params: { project } })).collections.find(({ id }) => id === design)!.items).toBe(before);
    // Kept as a set, each group has a collection of its own; the model stays where it is.
    const apart = await make({ set: 'Proposal', groups: [...groups, { title: 'Sensing', items: [b] }] });
    const { sets, collections } = await client.call(getProject, { params: { project } });
    const own = collections.filter(({ set }) => set === sets.find(({ name }) => name === 'Proposal')!.id);
    expect(own.map(({ name, prefix, kind, items }) => [name, prefix, kind, items])).toEqual([
      ['Sensing', 'SEN', 'component', 1],
      ['Drive', 'DRI', 'component', 1],
      ['Sensing', 'SEN2', 'component', 1],
    ]);
    expect(apart.items.map(({ reference }) => reference)).toEqual(['SEN-001', 'DRI-001', 'SEN2-001']);
    expect(collections.find(({ id }) => id === design)!.items).toBe(before);
    await expect(make({ set: 'proposal' })).rejects.toMatchObject({ code: 'input-invalid', message: expect.stringContaining('set "proposal"') });
    await client.call(undo, { params: { project } });
    const after = await client.call(getProject, { params: { project } });
    expect([after.sets, after.collections.map(({ id }) => id)]).toEqual([[], collections.filter(({ set }) => set === null).map(({ id }) => id)]);
    await expect(make({ groups: [{ title: 'X', items: [other.id] }] })).rejects.toMatchObject({ code: 'link-not-allowed' });
    await expect(make({ linkKind: 'nothing' })).rejects.toMatchObject({ code: 'input-invalid' });
    await expect(make({ kind: 'nothing' })).rejects.toMatchObject({ code: 'input-invalid', message: expect.stringContaining('There is no kind "nothing"') });
  });
});
