import {
  type BodyOf,
  createItem,
  editItem,
  getDrawing,
  getItem,
  keepDrawing,
  listChanges,
  listDrawings,
  placeDrawing,
  planDrawing,
  setBoxes,
  undo,
  withdrawItems,
} from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

type Definition = NonNullable<BodyOf<typeof planDrawing>>;

/** A weir with a gate that has a drive; a keeper who opens it; a need that the drive satisfies and a test of that. */
describe('drawings that are made here', () => {
  const server = useServer();

  async function scene() {
    const { client } = server;
    const { project, requirements, design, tests } = await makeProject(client);
    const make = (kind: string, title: string, parent: string | null = null) =>
      client.call(createItem, { params: { project }, body: { collection: design, kind, title, parent } });
    const weir = await make('component', 'Weir');
    const gate = await make('part', 'gate', weir.id);
    const lift = await make('part', 'lift', gate.id);
    const keeper = await make('actor', 'Keeper');
    const grid = await make('component', 'Grid');
    const open = await make('useCase', 'Open the gate');
    const measure = await make('function', 'Measure');
    const decide = await make('function', 'Decide');
    await addLink(client, project, 'depends', lift, grid);
    await addLink(client, project, 'depends', open, keeper).catch(() => undefined);
    await addLink(client, project, 'depends', decide, measure);
    const need = await addItem(client, project, requirements, 'It opens');
    await addLink(client, project, 'satisfies', gate, need);
    const test = await addItem(client, project, tests, 'Open it');
    await addLink(client, project, 'verifies', test, need);
    return { client, project, design, requirements, make, weir, gate, lift, grid, need, test };
  }
  const define = (sort: Definition['sort'], about: string, more: Partial<Definition> = {}): Definition => ({ sort, about, levels: 3, detail: [], ...more });
  const plan = (project: string, definition: Definition) => server.client.call(planDrawing, { params: { project }, body: definition });
  const names = (list: readonly { name: string }[]) => list.map(({ name }) => name).sort();

  it('show what the project is now, whatever sort they are of', async () => {
    const { project, weir, design, need } = await scene();
    expect(names((await plan(project, define('composition', weir.id))).nodes)).toEqual(['Weir', 'gate', 'lift']);
    expect(names((await plan(project, define('composition', weir.id, { levels: 1 }))).nodes)).toEqual(['Weir', 'gate']);
    expect(names((await plan(project, define('context', weir.id))).nodes)).toEqual(['Grid', 'Weir']);
    expect((await plan(project, define('context', weir.id))).edges).toMatchObject([{ derived: true, label: 'depends on: lift' }]);
    expect(names((await plan(project, define('flow', design))).nodes)).toEqual(['Decide', 'Measure']);
    expect(names((await plan(project, define('useCases', design))).nodes)).toContain('Open the gate');
    const overview = await plan(project, define('overview', ''));
    expect(overview.edges.map(({ from, to, label }) => [overview.nodes[from]!.name, overview.nodes[to]!.name, label])).toEqual(
      expect.arrayContaining([
        ['Design', 'Requirements', '1'],
        ['Tests', 'Requirements', '1'],
      ]),
    );
    const trace = await plan(project, define('trace', need.id, { up: 1, levels: 1 }));
    expect(names(trace.nodes)).toEqual(['It opens', 'Open it', 'gate']);
    expect(trace.edges.map(({ label }) => label).sort()).toEqual(['is satisfied by', 'is verified by']);
    await expect(plan(project, define('context', '01a21f00-0000-7000-8000-000000000000'))).rejects.toMatchObject({ code: 'not-found' });
  });

  it('are kept as items, stay current, and tell what vanished and what came', async () => {
    const { client, project, make, weir, gate, lift } = await scene();
    const kept = await client.call(keepDrawing, {
      params: { project },
      body: { name: 'What the weir is made of', definition: define('composition', weir.id) },
    });
    const brief = (await client.call(listDrawings, { params: { project } })).find(({ id }) => id === kept.drawing)!;
    expect(brief).toMatchObject({ name: 'What the weir is made of', made: true, shapes: 3, item: { kind: 'drawing' } });
    expect((await client.call(getItem, { params: { project, item: lift.id } })).drawnIn).toMatchObject([{ drawing: kept.drawing }]);
    const read = () => server.client.call(getDrawing, { params: { project, drawing: kept.drawing } });
    expect(names((await read()).shapes)).toEqual(['Weir', 'gate', 'lift']);
    await client.call(editItem, { params: { project, item: gate.id }, body: { revision: 1, title: 'sluice' } });
    await make('part', 'paddle', weir.id);
    await client.call(withdrawItems, { params: { project }, body: { items: [lift.id] } });
    for (const restarted of [false, true]) {
      if (restarted) await server.restart();
      const now = await read();
      expect(names(now.shapes)).toEqual(['Weir', 'paddle', 'sluice']);
      expect(now.made).toMatchObject({ gone: ['lift'], fresh: [now.shapes.find(({ name }) => name === 'paddle')!.id] });
    }
    await server.client.call(placeDrawing, { params: { project, drawing: kept.drawing }, body: { revision: 1, hand: {} } });
    expect((await read()).made).toMatchObject({ gone: [], fresh: [] });
  });

  it('keep where people placed things: branches follow in trees, others stay where they were put; undone, they stand as before', async () => {
    const { client, project, weir, gate } = await scene();
    const { drawing } = await client.call(keepDrawing, { params: { project }, body: { name: 'Weir', definition: define('composition', weir.id) } });
    const read = () => server.client.call(getDrawing, { params: { project, drawing } });
    const before = await read();
    const at = (list: typeof before, name: string) => list.shapes.find((shape) => shape.name === name)!;
    const key = at(before, 'gate').id;
    expect(key).toContain(gate.id);
    await client.call(placeDrawing, { params: { project, drawing }, body: { revision: 1, hand: { [key]: { x: 20, y: 200 } } } });
    const after = await read();
    for (const name of ['gate', 'lift']) expect([at(after, name).x - at(before, name).x, at(after, name).y - at(before, name).y]).toEqual([20, 200]);
    expect(at(after, 'Weir')).toEqual(at(before, 'Weir'));
    await expect(client.call(placeDrawing, { params: { project, drawing }, body: { revision: 1, hand: {} } })).rejects.toMatchObject({
      code: 'changed-meanwhile',
    });
    await client.call(undo, { params: { project } });
    expect(at(await read(), 'lift')).toEqual(at(before, 'lift'));
    const flow = await client.call(keepDrawing, {
      params: { project },
      body: {
        name: 'Flow',
        definition: define('flow', ''),
        hand: Object.fromEntries((await plan(project, define('flow', ''))).nodes.map((node, index) => [node.key, { x: index * 500, y: index * 90 }])),
      },
    });
    const { shapes } = await client.call(getDrawing, { params: { project, drawing: flow.drawing } });
    expect(shapes.map(({ x, y }) => [x, y])).toEqual([
      [0, 0],
      [500, 90],
    ]);
    const [change] = await client.call(listChanges, { params: { project }, query: {} });
    expect(change!.action).toBe('Keep the drawing "Flow"');
  });

  it('say what stands in their nodes', async () => {
    const { project, weir, make } = await scene();
    await make('value', 'height', weir.id);
    const [node] = (await plan(project, define('composition', weir.id, { detail: ['values', 'parts', 'reference'] }))).nodes;
    expect(node).toMatchObject({
      keyword: expect.stringMatching(/^DES-\d+ · component$/),
      parts: [
        { title: 'values', lines: ['height'] },
        { title: 'parts', lines: ['gate'] },
      ],
    });
  });

  it('have boxes with links as any drawing has: kept for everybody, through what is placed later, not over somebody else', async () => {
    const { client, project, weir, gate } = await scene();
    const { drawing } = await client.call(keepDrawing, { params: { project }, body: { name: 'Weir', definition: define('composition', weir.id) } });
    const read = () => server.client.call(getDrawing, { params: { project, drawing } });
    expect((await read()).boxes).toEqual({ shown: [], layers: [], places: {} });
    const key = (await read()).shapes.find(({ item }) => item === gate.id)!.id;
    const boxes = { shown: [key], layers: ['requirements'], places: { [key]: { x: 400, y: -20 } } };
    await client.call(setBoxes, { params: { project, drawing }, body: { revision: 1, boxes } });
    await client.call(placeDrawing, { params: { project, drawing }, body: { revision: 2, hand: {} } });
    await server.restart();
    expect((await read()).boxes).toEqual(boxes);
    const late = server.client.call(setBoxes, { params: { project, drawing }, body: { revision: 1, boxes: { ...boxes, shown: 'all' } } });
    await expect(late).rejects.toMatchObject({ code: 'changed-meanwhile' });
    await server.client.call(undo, { params: { project } });
    await server.client.call(undo, { params: { project } });
    expect((await read()).boxes.shown).toEqual([]);
  });
});
