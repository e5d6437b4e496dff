import {
  editItem,
  findItems,
  getRealisation,
  keepDrawing,
  keepView,
  listDrawings,
  listFindings,
  listSuspects,
  planDrawing,
  trendFindings,
  withdrawView,
} from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

/** Two requirements of which a lens shows one; a gate that satisfies both, and a test of the one that it does not show. */
describe('through a lens', () => {
  const server = useServer();
  async function scene() {
    const { client } = server;
    const { project, requirements, design, tests } = await makeProject(client);
    const level = await addItem(client, project, requirements, 'Gate level');
    const flow = await addItem(client, project, requirements, 'Flow over the gate');
    const gate = await addItem(client, project, design, 'Leaf');
    const opens = await addItem(client, project, tests, 'Opens');
    await addLink(client, project, 'satisfies', gate, level);
    await addLink(client, project, 'verifies', opens, flow);
    const lens = { conditions: [{ shown: { sort: 'title' }, test: 'says', values: ['level'] }] };
    const { id } = await client.call(keepView, { params: { project }, body: { sort: 'lens', name: 'Levels', body: { lens: JSON.stringify(lens) } } });
    return { client, project, level, flow, gate, opens, lens: id };
  }

  it('findings, how many each rule has, and their trend are of what is seen', async () => {
    const { client, project, level, lens } = await scene();
    const list = async (query: object) => client.call(listFindings, { params: { project }, query });
    const untested = (reply: Awaited<ReturnType<typeof list>>) => reply.findings.filter(({ rule }) => rule === 'gap:tested').map(({ item }) => item.reference);
    const [all, seen] = [await list({}), await list({ lens })];
    expect(untested(all)).toEqual([level.reference]);
    expect(untested(seen)).toEqual([level.reference]);
    expect(seen.total).toBeLessThan(all.total);
    expect(seen.total).toBe(seen.findings.length);
    expect(new Set(seen.findings.map(({ item }) => item.id))).toEqual(new Set([level.id]));
    expect(seen.rules.reduce((sum, { open }) => sum + open, 0)).toBe(seen.total);
    const trend = async (query: object) => (await client.call(trendFindings, { params: { project }, query })).at(-1)!.open.coverage!;
    const coverage = (reply: typeof all) => reply.rules.filter(({ group }) => group === 'coverage').reduce((sum, { open }) => sum + open, 0);
    expect(await trend({ lens })).toBe(coverage(seen));
    expect(await trend({})).toBe(coverage(all));
    expect(coverage(seen)).toBeLessThan(coverage(all));
  });

  it('suspect links are listed of which an end is seen, whichever', async () => {
    const { client, project, level, flow, gate, lens } = await scene();
    const reword = (item: { id: string }, title: string) => client.call(editItem, { params: { project, item: item.id }, body: { revision: 1, title } });
    const suspects = async (query: object) => {
      const { links, groups } = await client.call(listSuspects, { params: { project }, query });
      return [links, ...groups.map(({ item }) => item.reference)];
    };
    await reword(flow, 'Flow over the sill');
    expect(await suspects({ lens })).toEqual([0]);
    await reword(gate, 'Leaf of steel');
    expect(await suspects({ lens })).toEqual([1, gate.reference]);
    await reword(level, 'Gate level in m');
    expect(await suspects({ lens })).toEqual([1, level.reference]);
    expect(await suspects({})).toEqual([2, level.reference, flow.reference]);
    // A finding between two items is found at both.
    const { rules } = await client.call(listFindings, { params: { project }, query: { lens } });
    expect(rules.find(({ id }) => id === 'suspect')!.open).toBe(1);
  });

  it('words find what is seen, the best of that and not of all', async () => {
    const { client, project, level, flow, lens } = await scene();
    const find = async (query: object) => (await client.call(findItems, { params: { project }, query: { words: 'gate', ...query } })).map(({ id }) => id);
    expect(new Set(await find({}))).toEqual(new Set([level.id, flow.id]));
    expect(await find({ lens })).toEqual([level.id]);
    expect(await find({ lens, most: 1 })).toEqual([level.id]);
  });

  it('drawings say how many of their shapes show what is seen; layers count what is seen', async () => {
    const { client, project, level, flow, lens } = await scene();
    for (const about of [level, flow]) {
      const definition = { sort: 'trace' as const, about: about.id, levels: 1, up: 0, detail: [] };
      await client.call(planDrawing, { params: { project }, body: definition });
      await client.call(keepDrawing, { params: { project }, body: { name: `Trace of ${about.title}`, definition, hand: {} } });
    }
    const drawings = async (query: object) => (await client.call(listDrawings, { params: { project }, query })).map(({ name, seen }) => [name, seen]);
    expect(await drawings({ lens })).toEqual([
      ['Trace of Gate level', 1],
      ['Trace of Flow over the gate', 0],
    ]);
    expect((await drawings({})).map(([, seen]) => seen)).toEqual([undefined, undefined]);
    const layers = async (query: object) =>
      (await client.call(getRealisation, { params: { project }, query }))
        .filter(({ items }) => items > 0)
        .map(({ layer, items, none }) => [layer, items, none]);
    const [all, seen] = [await layers({}), await layers({ lens })];
    expect(all).toContainEqual([seen[0]![0], 2, 1]);
    expect(seen).toEqual([[expect.any(String), 1, 0]]);
  });

  it('a lens that is kept no more is refused by each, instead of showing everything', async () => {
    const { client, project, lens } = await scene();
    await client.call(withdrawView, { params: { project, view: lens } });
    for (const endpoint of [listFindings, trendFindings, listSuspects, listDrawings, getRealisation])
      await expect(client.call(endpoint, { params: { project }, query: { lens } } as never), endpoint.path).rejects.toMatchObject({ code: 'not-found' });
    await expect(client.call(findItems, { params: { project }, query: { words: 'gate', lens } })).rejects.toMatchObject({ code: 'not-found' });
  });
});
