import {
  confirmLinks,
  createWaiver,
  editItem,
  explainCoverage,
  getItem,
  getReadiness,
  openFigure,
  trendFigure,
  withdrawItems,
  withdrawWaiver,
} from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { ProjectStates } from '../project-state/project-states.js';
import { figureFamilies, openFigure as openFigureOf } from './figures/families.js';
import type { FigureFamily } from './figures/figure-family.js';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

const junit = (...cases: string[]) => Buffer.from(`<testsuite name="Run">${cases.join('')}</testsuite>`);
const passed = (name: string) => `<testcase name="${name}"/>`;
const failed = (name: string) => `<testcase name="${name}"><failure message="too slow"/></testcase>`;

describe('checking', () => {
  const server = useServer();

  async function scene() {
    const { client } = server;
    const small = await makeProject(client);
    const { project, requirements, design, tests } = small;
    const level = await addItem(client, project, requirements, 'Level');
    const siren = await addItem(client, project, requirements, 'Siren');
    const alone = await addItem(client, project, requirements, 'Alone');
    const gate = await addItem(client, project, design, 'Gate');
    const opens = await addItem(client, project, tests, 'Opens');
    const sounds = await addItem(client, project, tests, 'Sounds');
    await addLink(client, project, 'satisfies', gate, level);
    await addLink(client, project, 'verifies', opens, level);
    await addLink(client, project, 'verifies', sounds, siren);
    const open = async (figure: string) => (await client.call(openFigure, { params: { project, figure } })).items.map((item) => item.reference);
    return { ...small, client, level, siren, alone, gate, opens, sounds, open };
  }

  it('gives figures that open to exactly as many items', async () => {
    const { client, project } = await scene();
    await importThrough(client, project, 'run.xml', junit(passed('TC-001'), failed('TC-002')), {});
    const readiness = await client.call(getReadiness, { params: { project } });
    const figures = [
      ...readiness.states,
      ...readiness.results,
      ...readiness.links,
      ...readiness.testsPerRequirement,
      ...readiness.requirementsPerTest,
      ...readiness.rules.flatMap((rule) =>
        Object.entries(rule.counts)
          .filter(([state]) => state !== 'notApplicable')
          .map(([state, count]) => ({ id: `rule:${rule.rule}:${state}`, count })),
      ),
    ];
    for (const { id, count } of figures) expect((await client.call(openFigure, { params: { project, figure: id } })).items, id).toHaveLength(count);
    expect(figures.length).toBeGreaterThan(40);
  });

  it('tells what a figure was after earlier changes, and nothing where there was no such figure', async () => {
    const { client, project, alone, tests } = await scene();
    const trend = (figure: string, more: object = {}) => client.call(trendFigure, { params: { project, figure }, query: { points: 24, ...more } as never });
    const found = await trend('rule:tested:notMet');
    const now = (await client.call(openFigure, { params: { project, figure: 'rule:tested:notMet' } })).items.length;
    expect(found.points.at(-1)!.count).toBe(now);
    expect(found.points.map(({ seq }) => seq)).toEqual(found.points.map((_, at) => at + 1));
    // Each requirement that came without a test added to it, each test took one away.
    expect(Math.max(...found.points.map(({ count }) => count ?? 0))).toBeGreaterThan(now);
    await addLink(client, project, 'verifies', await addItem(client, project, tests, 'Late'), alone);
    const later = await trend('rule:tested:notMet');
    expect([later.points.at(-1)!.count, later.points.at(-1)!.action]).toEqual([now - 1, expect.stringContaining('Link')]);
    expect((await trend('state:verified', { points: 2 })).points).toHaveLength(2);
    await expect(trend('rule:odd:notMet')).rejects.toMatchObject({ code: 'not-found' });
  });

  it('opens a figure that is added, by one file and one line', async () => {
    const { project } = await scene();
    const state = await server.part(ProjectStates).get(project);
    /** All that a further family of figures is. */
    const short: FigureFamily = {
      id: 'short',
      describe: (_, [most]) => (Number(most) > 0 ? { label: `Titles of up to ${most} letters`, explains: 'Items whose titles say little.' } : undefined),
      collect: ({ items }, [most]) => items.flatMap(({ title }, node) => (title.length <= Number(most) ? [node] : [])),
      noteOf: ({ items }, node) => `${items[node]!.title.length} letters`,
    };
    const figures = [...figureFamilies, short];
    const { label, nodes, noteOf } = openFigureOf(state, 'short:5', figures);
    expect(label).toBe('Titles of up to 5 letters');
    expect(nodes.map((node) => `${state.items[node]!.title}: ${noteOf!(state, node)}`)).toEqual([
      'Level: 5 letters',
      'Siren: 5 letters',
      'Alone: 5 letters',
      'Gate: 4 letters',
      'Opens: 5 letters',
    ]);
    expect(() => openFigureOf(state, 'short:none', figures)).toThrow('There is no figure "short:none"');
    expect(() => openFigureOf(state, 'short:5')).toThrow('There is no figure');
  });

  it('follows results and rewordings through the states', async () => {
    const { client, project, level, open } = await scene();
    expect(await open('state:planned')).toEqual(['REQ-001', 'REQ-002']);
    await importThrough(client, project, 'run.xml', junit(passed('TC-001'), failed('TC-002')), {});
    expect([await open('state:verified'), await open('state:failing'), await open('state:unplanned')]).toEqual([['REQ-001'], ['REQ-002'], ['REQ-003']]);
    await client.call(editItem, { params: { project, item: level.id }, body: { revision: 1, title: 'Level band' } });
    expect(await open('state:stale')).toEqual(['REQ-001']);
    const evidence = (await client.call(getItem, { params: { project, item: 'REQ-001' } })).evidence;
    expect(evidence).toMatchObject([{ test: { reference: 'TC-001' }, outcome: 'passed', run: 'Run', stale: true }]);
    await importThrough(client, project, 'again.xml', junit(passed('TC-001')), {});
    expect(await open('state:stale'), 'the link still waits to be confirmed').toEqual(['REQ-001']);
    const [link] = (await client.call(getItem, { params: { project, item: 'REQ-001' } })).downstream.filter((one) => one.linkKind === 'verifies');
    await client.call(confirmLinks, { params: { project }, body: { links: [link!.id] } });
    expect(await open('state:verified')).toEqual(['REQ-001']);
  });

  it('covers by link, and by suspect link only after a rewording', async () => {
    const { client, project, gate, open } = await scene();
    expect([await open('rule:implemented:met'), await open('rule:implemented:notMet')]).toEqual([['REQ-001'], ['REQ-002', 'REQ-003']]);
    await client.call(editItem, { params: { project, item: gate.id }, body: { revision: 1, title: 'Lift gate' } });
    expect([await open('rule:implemented:met'), await open('rule:implemented:suspect')]).toEqual([[], ['REQ-001']]);
    expect(await open('links:suspect')).toEqual(['REQ-001', 'DES-001']);
    await client.call(withdrawItems, { params: { project }, body: { items: [gate.id] } });
    expect(await open('rule:implemented:notMet')).toEqual(['REQ-001', 'REQ-002', 'REQ-003']);
  });

  it('says why: the path, or where the search ended', async () => {
    const { client, project, level, alone, siren, requirements, tests } = await scene();
    const why = (rule: string, item: string) => client.call(explainCoverage, { params: { project, rule, item } });
    expect(await why('tested', level.id)).toMatchObject({
      state: 'met',
      paths: [{ suspect: false, steps: [{ phrase: 'is verified by', item: { reference: 'TC-001' } }] }],
    });
    expect(await why('tested', alone.id)).toMatchObject({ state: 'notMet', paths: [], ends: [], looksFor: expect.stringContaining('test case') });
    const part = await addItem(client, project, requirements, 'Part of alone');
    await addLink(client, project, 'derives', part, alone);
    expect(await why('tested', alone.id)).toMatchObject({ state: 'notMet', ends: [{ reference: part.reference }] });
    await addLink(client, project, 'verifies', await addItem(client, project, tests, 'Late'), part);
    expect((await why('tested', alone.id)).paths[0]!.steps.map((step) => step.phrase)).toEqual(['leads to', 'is verified by']);
    expect((await why('implemented', siren.id)).state).toBe('notMet');
  });

  it('waives a gap by name and reason until a day; an expired waiver is none', async () => {
    const { client, project, alone, open } = await scene();
    const waive = (until: string | null) =>
      client.call(createWaiver, { params: { project }, body: { item: alone.id, rule: 'tested', reason: 'Shown by analysis', until } });
    expect(await waive('2020-01-01')).toMatchObject({ active: false, person: 'Ada Wick' });
    expect(await open('rule:tested:notMet')).toEqual(['REQ-003']);
    const waiver = await waive(null);
    expect([await open('rule:tested:waived'), await open('state:waived')]).toEqual([['REQ-003'], ['REQ-003']]);
    await client.call(withdrawWaiver, { params: { project, waiver: waiver.id } });
    expect(await open('rule:tested:waived')).toEqual([]);
    await expect(client.call(createWaiver, { params: { project }, body: { item: alone.id, rule: 'tested', reason: 'no' } })).rejects.toMatchObject({
      code: 'input-invalid',
    });
  });

  it('counts distributions in classes', async () => {
    const { client, project, level, tests, open } = await scene();
    for (let i = 0; i < 3; i++) await addLink(client, project, 'verifies', await addItem(client, project, tests, `More ${i}`), level);
    expect([await open('tests-per-requirement:3-5'), await open('tests-per-requirement:0'), await open('requirements-per-test:1')]).toEqual([
      ['REQ-001'],
      ['REQ-003'],
      ['TC-001', 'TC-002', 'TC-003', 'TC-004', 'TC-005'],
    ]);
  });

  it('opens what figures take together', async () => {
    const { open } = await scene();
    expect([
      await open('state:all'),
      await open('state:open'),
      await open('rule:tested:applicable'),
      await open('layer:tests'),
      await open('links:open'),
    ]).toEqual([['REQ-001', 'REQ-002', 'REQ-003'], ['REQ-001', 'REQ-002', 'REQ-003'], ['REQ-001', 'REQ-002', 'REQ-003'], ['TC-001', 'TC-002'], ['REQ-003']]);
  });

  it('narrows a figure to a collection, and refuses figures that do not exist', async () => {
    const { client, project, requirements } = await scene();
    const { items } = await client.call(openFigure, { params: { project, figure: 'links:none' }, query: { collection: requirements } });
    expect(items.map((item) => item.reference)).toEqual(['REQ-003']);
    for (const figure of ['riddle', 'rule:riddle:met', 'state:riddle', 'links:riddle', 'results:riddle', 'tests-per-requirement:9'])
      await expect(client.call(openFigure, { params: { project, figure } })).rejects.toMatchObject({ code: 'not-found' });
  });
});
