import {
  getReadiness,
  holdInLens,
  keepView,
  listChanges,
  lookThrough,
  openFigure,
  queryLinks,
  queryRegister,
  trendFigure,
  undo,
  withdrawView,
  writeCells,
} from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

const highPriority = { shown: { sort: 'field', of: 'priority' }, test: 'is', values: ['High'] };

describe('lenses', () => {
  const server = useServer();
  const scene = async () => {
    const { client } = server;
    const made = await makeProject(client);
    const { project, requirements, tests } = made;
    const section = await addItem(client, project, requirements, 'Levels', { heading: true });
    const level = await addItem(client, project, requirements, 'Level', { parent: section.id });
    const flow = await addItem(client, project, requirements, 'Flow');
    const opens = await addItem(client, project, tests, 'Opens');
    await addLink(client, project, 'verifies', opens, level);
    await addLink(client, project, 'derives', level, flow);
    await client.call(writeCells, {
      params: { project },
      body: { cells: [{ item: level.id, column: { sort: 'field', field: 'priority' }, text: 'High' }] } as never,
    });
    const keep = (name: string, lens: object) =>
      client.call(keepView, { params: { project }, body: { sort: 'lens', name, body: { lens: JSON.stringify(lens) } } });
    const look = (lens: { id: string }) => client.call(lookThrough, { params: { project, lens: lens.id } });
    const hold = (lens: { id: string }, as: string, ...items: { id: string }[]) =>
      client.call(holdInLens, { params: { project, lens: lens.id }, body: { items: items.map(({ id }) => id), as } as never });
    return { ...made, client, section, level, flow, opens, keep, look, hold };
  };

  it('show what passes their conditions, with the sections that it stands in; links across are told, not hidden', async () => {
    const { keep, look, section, level } = await scene();
    const lens = await keep('Urgent', { conditions: [highPriority] });
    expect(await look(lens)).toMatchObject({
      name: 'Urgent',
      items: 1,
      nodes: [section.node, level.node].toSorted((a, b) => a - b),
      linksWithin: 0,
      linksAcross: 2,
      unknown: [],
    });
    expect(await look(await keep('Everything', {}))).toMatchObject({ items: 3, linksWithin: 2, linksAcross: 0 });
    expect((await look(await keep('Odd', { conditions: [{ shown: { sort: 'field', of: 'nowhere' }, test: 'given' }] }))).unknown).toEqual([0]);
  });

  it('have items pinned and left out by hand, which one undo takes back', async () => {
    const { keep, look, hold, level, flow, opens, client, project } = await scene();
    const lens = await keep('Urgent', { conditions: [highPriority] });
    const items = async () => (await look(lens)).nodes;
    expect((await hold(lens, 'pinned', flow, opens)).changed).toBe(2);
    expect(await items()).toEqual(expect.arrayContaining([level.node, flow.node, opens.node]));
    expect((await hold(lens, 'pinned', flow)).changed).toBe(0);
    await hold(lens, 'leftOut', level, flow);
    expect(await items()).toEqual([opens.node]);
    expect((await client.call(listChanges, { params: { project }, query: {} }))[0]!.action).toBe('Leave out 2 items: lens "Urgent"');
    await client.call(undo, { params: { project } });
    expect(await items()).toContain(level.node);
    await hold(lens, 'asked', flow, opens);
    expect((await look(lens)).items).toBe(1);
    const ofRequirements = { kinds: ['requirement'], conditions: [highPriority] };
    expect((await look(await keep('Urgent, and tests', ofRequirements))).nodes).toContain(opens.node);
    expect((await look(await keep('Urgent alone', { ...ofRequirements, others: 'hidden' }))).nodes).not.toContain(opens.node);
    const pinned = await keep('Mine', { pinned: [flow.id] });
    expect((await look(pinned)).nodes).toEqual([flow.node]);
  });

  it('are looked through by registers and lists of links, and follow every change', async () => {
    const { keep, client, project, flow, level } = await scene();
    const lens = await keep('Urgent', { conditions: [highPriority] });
    const rows = async () =>
      (
        await client.call(queryRegister, {
          params: { project },
          body: { what: { columns: [] }, where: { collections: [], below: [], lens: lens.id } } as never,
        })
      ).rows.map(({ item }) => item.reference);
    const links = async () => (await client.call(queryLinks, { params: { project }, query: { lens: lens.id } })).total;
    expect(await rows()).toEqual([level.reference]);
    expect(await links()).toBe(2);
    await client.call(writeCells, {
      params: { project },
      body: {
        cells: [
          { item: level.id, column: { sort: 'field', field: 'priority' }, text: 'Low' },
          { item: flow.id, column: { sort: 'field', field: 'priority' }, text: 'High' },
        ],
      } as never,
    });
    expect(await rows()).toEqual([flow.reference]);
    expect(await links()).toBe(1);
  });

  it('are of today, whatever moment is looked at through them', async () => {
    const { keep, client, project, level, flow } = await scene();
    const { seq } = await client.call(queryLinks, { params: { project }, query: {} });
    await client.call(writeCells, {
      params: { project },
      body: {
        cells: [
          { item: level.id, column: { sort: 'field', field: 'priority' }, text: '' },
          { item: flow.id, column: { sort: 'field', field: 'priority' }, text: 'High' },
        ],
      } as never,
    });
    const lens = await keep('Later', { kinds: ['requirement'], others: 'hidden', conditions: [highPriority] });
    const then = (await (await fetch(`${server.address}/api/projects/${project}/lenses/${lens.id}?asOf=${seq}`)).json()) as { nodes: number[] };
    expect(then.nodes).toContain(level.node);
    expect(then.nodes).not.toContain(flow.node);
  });

  it('refuse what is no lens, and say so of one that is kept no more', async () => {
    const { keep, look, client, project } = await scene();
    await expect(keep('Broken', { conditions: [{ test: 'sings' }] })).rejects.toMatchObject({ code: 'input-invalid' });
    const lens = await keep('Urgent', {});
    await client.call(withdrawView, { params: { project, view: lens.id } });
    await expect(look(lens)).rejects.toMatchObject({ code: 'not-found' });
    const matrix = await client.call(keepView, { params: { project }, body: { sort: 'matrix', name: 'No lens', body: {} } });
    await expect(look(matrix)).rejects.toMatchObject({ code: 'not-found' });
  });

  it('are what readiness, figures and their trends are counted of; what a field said earlier counts for that moment', async () => {
    const { client, project, level, flow, keep } = await scene();
    const lens = (await keep('Urgent', { kinds: ['requirement'], others: 'hidden', conditions: [highPriority] })).id;
    const tested = async (through?: string) => {
      const { rules } = await client.call(getReadiness, { params: { project }, query: through ? { lens: through } : {} });
      return rules.find(({ rule }) => rule === 'tested')!;
    };
    // The flow is tested through the level, which derives from it.
    expect(await tested()).toMatchObject({ applicable: 2, counts: { met: 2 } });
    expect(await tested(lens)).toMatchObject({ applicable: 1, counts: { met: 1 } });
    const figure = 'rule:tested:applicable';
    const open = async () => (await client.call(openFigure, { params: { project, figure }, query: { lens } })).items.map(({ title }) => title);
    expect(await open()).toEqual(['Level']);
    await client.call(writeCells, {
      params: { project },
      body: { cells: [{ item: flow.id, column: { sort: 'field', field: 'priority' }, text: 'High' }] } as never,
    });
    expect(await open()).toEqual(['Level', 'Flow']);
    const { points } = await client.call(trendFigure, { params: { project, figure }, query: { lens, points: 24 } });
    expect(points.map(({ count }) => count).slice(-3)).toEqual([1, 1, 2]);
    expect(points[0]!.count).toBe(0);
    await expect(client.call(getReadiness, { params: { project }, query: { lens: level.id } })).rejects.toMatchObject({ code: 'not-found' });
  });
});
