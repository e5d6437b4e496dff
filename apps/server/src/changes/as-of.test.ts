import {
  addFields,
  confirmLinks,
  createCollection,
  createReport,
  createWaiver,
  editItem,
  endpoints,
  getOutline,
  getProject,
  type Item,
  keepRecipe,
  listLinks,
  moveItem,
  needs,
  type RecipeBody,
  redo,
  removeLinks,
  renameProject,
  undo,
  withdrawItems,
} from '@coomb/contract';
import { buildReadyRecipes, defaultScheme } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

const junit = (outcome: string) =>
  Buffer.from(`<testsuite name="Rig" timestamp="2026-11-20T08:00:00"><testcase name="TC-001 closes">${outcome}</testcase><testcase name="other"/></testsuite>`);

const numbered = {
  ...{ name: 'r', kind: 'requirement', headings: Array.from({ length: 9 }, () => 'section' as const), identifier: '', bindingWords: ['must'] },
  ...{ between: 'section' as const, labels: [], tables: [] },
};

describe('as of any change', () => {
  const server = useServer();
  const base = (project: string) => `${server.address}/api/projects/${project}`;

  /** What every reading route says now, or said as of a change. */
  async function readAll(project: string, asOf?: number): Promise<Record<string, unknown>> {
    const said: Record<string, unknown> = {};
    const get = async (path: string) => {
      const response = await fetch(`${base(project)}${path}${asOf === undefined ? '' : `${path.includes('?') ? '&' : '?'}asOf=${asOf}`}`);
      // A file says when it was written.
      const text = (await response.text()).replace(path.endsWith('/reqif') ? /\d{4}-\d\d-\d\dT[\d:]+Z/g : /$^/, 'WRITTEN');
      said[path] = { status: response.status, body: response.headers.get('content-type')?.startsWith('application/json') ? JSON.parse(text) : text };
      return (said[path] as { body: unknown }).body;
    };
    const { collections } = (await get('')) as { collections: { id: string }[] };
    const outline = (await get('/outline')) as { id: string[]; reference: string[] };
    for (const path of [
      '/readiness',
      '/links',
      '/sources',
      '/runs',
      '/reports',
      '/recipes',
      '/changes',
      '/find?words=gate',
      '/figures/open',
      '/figures/state:verified',
    ])
      await get(path);
    for (const { id } of collections) {
      await get(`/collections/${id}/reading?limit=100`);
      for (const format of ['csv', 'md', 'reqif', 'csv/recipe']) await get(`/collections/${id}/export/${format}`);
    }
    for (const item of outline.id) for (const part of ['', '/history', '/trace']) await get(`/items/${item}${part}`);
    const sources = (said['/sources'] as { body: { id: string; items: number }[] }).body;
    for (const { id } of sources) await get(`/sources/${id}`);
    const runs = (said['/runs'] as { body: { id: string }[] }).body;
    for (const { id } of runs) await get(`/runs/${id}`);
    const reports = (said['/reports'] as { body: { id: string }[] }).body;
    for (const { id } of reports) await get(`/reports/${id}`);
    return said;
  }

  it('every reading route says what it said then, also after a restart', async () => {
    const { client } = server;
    const { project, requirements, design, tests } = await makeProject(client);
    const params = { project };
    const then = new Map<number, Record<string, unknown>>();
    const note = async () => then.set((await client.call(getProject, { params })).seq, await readAll(project));
    const edit = async (item: string, body: { title?: string; html?: string }) => {
      const { revision } = (await (await fetch(`${base(project)}/items/${item}`)).json()) as { revision: number };
      await client.call(editItem, { params: { project, item }, body: { revision, ...body } });
    };
    const idOf = async (wanted: string) => {
      const { id, reference } = await client.call(getOutline, { params });
      return id[reference.indexOf(wanted)]!;
    };
    const steps: (() => Promise<unknown>)[] = [
      () => addItem(client, project, requirements, 'Gates', { heading: true }),
      async () => addItem(client, project, requirements, 'The gate shall close', { parent: (await client.call(getOutline, { params })).id[0]! }),
      () => addItem(client, project, requirements, 'The gate shall lock'),
      () => addItem(client, project, design, 'Gate drive'),
      () =>
        importThrough(client, project, 'tests.csv', Buffer.from('ID,Title,Steps\nTC-001,Gate closes,Close it\nTC-002,Gate locks,Lock it\n'), {
          collection: { id: tests },
        }),
      () => edit('REQ-001', { title: 'The gate shall close at once' }),
      async () => addLink(client, project, 'verifies', { id: await idOf('TC-001') } as Item, { id: await idOf('REQ-001') } as Item),
      () => importThrough(client, project, 'run.xml', junit('<failure message="stuck"/>'), {}),
      () => edit('REQ-001', { html: '<p>It shall close within 30 s.</p>' }),
      async () => {
        const { id } = await client.call(listLinks, { params, query: {} });
        await client.call(confirmLinks, { params, body: { links: id } });
      },
      () => importThrough(client, project, 'run 2.xml', junit(''), {}),
      async () => client.call(createWaiver, { params, body: { item: await idOf('REQ-002'), rule: 'tested', reason: 'Agreed', until: null } }),
      () => client.call(createReport, { params, body: { title: 'First' } }),
      () => client.call(renameProject, { params, body: { name: 'Mill race' } }),
      () => client.call(moveItem, { params: { project, item: 'REQ-002' }, body: { parent: null, after: null } }),
      () => client.call(createCollection, { params, body: { name: 'Needs', holds: 'specification', prefix: 'ND', kind: 'need' } }),
      () => client.call(addFields, { params, body: { fields: [{ label: 'Rank', type: 'number', kind: 'requirement' }] } }),
      async () => client.call(withdrawItems, { params, body: { items: [(await client.call(getOutline, { params })).id[0]!] } }),
      async () => client.call(undo, { params }),
      () =>
        client.call(keepRecipe, {
          params,
          body: { name: 'Mine', body: { reads: 'document', recipe: buildReadyRecipes(defaultScheme)[0]!.recipe } as RecipeBody },
        }),
      async () => {
        const { id } = await client.call(listLinks, { params, query: {} });
        await client.call(removeLinks, { params, body: { links: id } });
      },
      () =>
        importThrough(client, project, 'clauses.md', Buffer.from('# 4 Gates\n\n4.1 The gate must close.\n\n4.2 The gate must lock.\n'), {
          collection: { name: 'Rules', prefix: 'RU', holds: 'specification' },
          documentRecipe: { ...numbered, numberField: 'rationale' },
        }),
      () => addItem(client, project, requirements, 'A late one'),
      () => client.call(undo, { params }),
      () => client.call(redo, { params }),
      () => client.call(undo, { params }),
    ];
    await note();
    for (const step of steps) {
      await step();
      await note();
    }
    expect(then.size).toBeGreaterThan(20);
    const compare = async () => {
      for (const [seq, said] of then) {
        const now = await readAll(project, seq);
        for (const path of new Set([...Object.keys(said), ...Object.keys(now)])) expect(now[path], `${path} as of ${seq}`).toEqual(said[path]);
      }
    };
    await compare();
    await server.restart();
    await compare();
    // The present is as it was.
    expect(await readAll(project)).toEqual(then.get(Math.max(...then.keys())));
  }, 240_000);

  it('refuses to change what is past, and numbers that are no change, whatever the call', async () => {
    const { project, requirements } = await makeProject(server.client);
    await addItem(server.client, project, requirements, 'One');
    await addItem(server.client, project, requirements, 'Two');
    const send = async (path: string, method = 'POST', body: unknown = {}) => {
      const response = await fetch(`${base(project)}${path}`, {
        method,
        ...(method !== 'GET' && { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
      });
      return { status: response.status, ...((await response.json()) as { error?: { code: string; message: string } }).error };
    };
    expect(await send('/items?asOf=2', 'POST', { collection: requirements, title: 'Three' })).toMatchObject({
      status: 409,
      code: 'past-unchangeable',
      message: 'Change 2 is past: what stood then can be read, not changed. Leave "asOf" out to change what stands now.',
    });
    for (const path of ['/undo?asOf=2', '/links?asOf=2', '/reports?asOf=1', '/waivers?asOf=1']) expect((await send(path)).code, path).toBe('past-unchangeable');
    expect((await send('/items/REQ-001?asOf=2', 'PATCH')).code).toBe('past-unchangeable');
    for (const wrong of ['0', '-1', '99', 'x', '1.5', '2&asOf=3'])
      expect(await send(`/outline?asOf=${wrong}`, 'GET'), wrong).toMatchObject({
        status: 400,
        message: expect.stringContaining('is no change of this project; there are 1 to 5'),
      });
    expect((await server.client.call(getOutline, { params: { project } })).title).toEqual(['One', 'Two']);
    expect(await send('/items/REQ-002?asOf=4', 'GET')).toMatchObject({ status: 404 });
  });

  it('is said of every call: what it needs', () => {
    expect(Object.keys(needs).sort()).toEqual(Object.keys(endpoints).sort());
    for (const [name, endpoint] of Object.entries(endpoints)) if (endpoint.method === 'GET') expect(needs[name], name).toBe('read');
  });
});
