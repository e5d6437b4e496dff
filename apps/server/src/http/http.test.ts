import { buildUrl, endpoints, errorReply, exportItems, listProjects } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, makeProject, useServer } from '../testing/test-server.js';

describe('the interface', () => {
  const server = useServer();
  const get = (path: string, init: RequestInit = {}) => fetch(`${server.address}${path}`, init);
  const post = (headers: Record<string, string>, body = '{"name":"X"}') =>
    get('/api/projects', { method: 'POST', headers: { 'Content-Type': 'application/json', ...headers }, body });

  it('describes every endpoint in OpenAPI, and serves every one', async () => {
    const document = (await (await get('/api/openapi.json')).json()) as { openapi: string; paths: Record<string, Record<string, { operationId: string }>> };
    expect(document.openapi).toBe('3.1.0');
    const described = Object.values(document.paths).flatMap((methods) => Object.values(methods).map((operation) => operation.operationId));
    expect(described.sort()).toEqual(Object.keys(endpoints).sort());
    const id = '01890000-0000-7000-8000-000000000000';
    const fill = {
      project: id,
      collection: id,
      item: 'REQ-001',
      link: id,
      rule: 'tested',
      figure: 'open',
      tray: id,
      job: id,
      source: id,
      file: id,
      report: id,
      waiver: id,
    };
    for (const [name, endpoint] of Object.entries(endpoints)) {
      const response = await get(buildUrl(endpoint.path, fill), {
        method: endpoint.method,
        ...(endpoint.method !== 'GET' && { body: '{}', headers: { 'Content-Type': 'application/json' } }),
      });
      const reply = await response.text();
      expect(reply, name).not.toContain('There is nothing at this address');
    }
  });

  it('keeps nothing in memory of projects that are not there, whatever is asked of them', async () => {
    const known = (await makeProject(server.client)).project;
    await get(`/api/projects/${known}/outline`);
    expect(server.findHeld(known)).toContain('ProjectStates.present');
    const project = '01890000-0000-7000-8000-00000000dead';
    const bodies: Record<string, unknown> = {
      createItem: { collection: project, title: 'A' },
      createCollection: { name: 'A', holds: 'specification', prefix: 'A', kind: 'requirement' },
      createLinks: { links: [{ linkKind: 'satisfies', from: project, to: project }] },
      exportItems: { items: [project] },
      createReport: { title: 'A' },
    };
    const answers = new Map<string, number>();
    for (const [name, endpoint] of Object.entries(endpoints)) {
      if (!endpoint.path.includes(':project')) continue;
      const response = await get(
        buildUrl(endpoint.path, {
          ...{ project, collection: project, item: 'REQ-1', link: project, rule: 'tested', figure: 'open', tray: project, format: 'csv' },
          ...{ job: project, source: project, file: project, report: project, waiver: project, run: project, change: 1 },
        }),
        {
          method: endpoint.method,
          ...(endpoint.method !== 'GET' && { body: JSON.stringify(bodies[name] ?? {}), headers: { 'Content-Type': 'application/json' } }),
        },
      );
      answers.set(name, response.status);
      await response.body?.cancel();
    }
    expect([...answers].filter(([, status]) => status < 400 || status >= 500)).toEqual([]);
    expect([...answers].filter(([, status]) => status === 404).length).toBeGreaterThan(40);
    expect(server.findHeld(project)).toEqual([]);
  });

  it('says in words what an address names that is none', async () => {
    const { project } = await makeProject(server.client);
    const response = await get(`/api/projects/${project}/tray/sources`);
    expect(response.status).toBe(404);
    expect(await response.json()).toMatchObject({
      error: { code: 'not-found', message: '"sources" is the name of no file that was handed in. The address is mistyped, or old.' },
    });
  });

  it('tells the first faults of a body, and how many more there are', async () => {
    const { project } = await makeProject(server.client);
    const address = buildUrl(exportItems.path, { project, format: 'csv' });
    const response = await get(address, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ items: Array(12).fill('x') }),
    });
    const { error } = errorReply.parse(await response.json());
    expect(error.message).toMatch(/^items\.0: .*; items\.4: [^;]*; and 7 more$/);
  });

  it('gives errors in one shape', async () => {
    for (const [path, status] of [
      ['/api/nowhere', 404],
      ['/api/projects/not-an-id', 404],
      ['/api/projects/01890000-0000-7000-8000-000000000000', 404],
    ] as const) {
      const response = await get(path);
      expect(response.status).toBe(status);
      expect(errorReply.safeParse(await response.json()).success).toBe(true);
    }
    const broken = await post({}, '{"name":');
    expect([broken.status, errorReply.safeParse(await broken.json()).success]).toEqual([400, true]);
  });

  it.each([
    ['another origin', { Origin: 'https://elsewhere.example' }, 403],
    ['the same name under another scheme', { Origin: 'https://HERE' }, 403],
    ['the same name at another port', { Origin: 'http://127.0.0.1:1' }, 403],
    ['another site', { 'Sec-Fetch-Site': 'cross-site' }, 403],
    ['an origin that is none', { Origin: 'null' }, 403],
    ['a program', {}, 200],
  ] as [string, Record<string, string>, number][])('takes changes from our own pages and programs only: %s', async (_, headers, status) => {
    const here = new URL(server.address).host;
    const named = Object.fromEntries(Object.entries(headers).map(([name, value]) => [name, value.replace('HERE', here)]));
    expect((await post(named)).status).toBe(status);
  });

  it('takes changes from its own pages', async () => {
    expect((await post({ Origin: server.address, 'Sec-Fetch-Site': 'same-origin' })).status).toBe(200);
  });

  it('sends a strict content policy and no server name', async () => {
    const { headers } = await get('/api/health');
    expect(headers.get('content-security-policy')).toContain("default-src 'none'");
    expect(headers.get('content-security-policy')).toContain("script-src 'self';");
    expect(headers.get('x-content-type-options')).toBe('nosniff');
    expect(headers.get('x-powered-by')).toBeNull();
  });

  it('tells listeners of a change at once, and who is here', async () => {
    const { project, requirements } = await makeProject(server.client);
    const stop = new AbortController();
    const response = await get(`/api/projects/${project}/live?person=Bo`, { signal: stop.signal });
    const events: { type: string }[] = [];
    const reading = (async () => {
      let text = '';
      for await (const chunk of response.body!) {
        text += Buffer.from(chunk).toString();
        for (const line of text.split('\n').slice(0, -1)) if (line.startsWith('data: {')) events.push(JSON.parse(line.slice(6)));
        text = text.slice(text.lastIndexOf('\n') + 1);
        if (events.some((event) => event.type === 'change')) return;
      }
    })();
    const item = await addItem(server.client, project, requirements, 'Told');
    await reading;
    stop.abort();
    expect(events).toContainEqual({ type: 'people', people: [{ name: 'Bo', items: [], writing: [] }] });
    expect(events.find((event) => event.type === 'change')).toMatchObject({ person: 'Ada Wick', action: 'Add REQ-001', items: [item.id], seq: 4 });
  });

  it('records the name that comes along, whatever its letters', async () => {
    const project = (await (await post({ 'X-Coomb-Person': encodeURIComponent('Zoë Größ') })).json()) as { id: string };
    expect((await server.client.call(listProjects)).map((one) => one.id)).toContain(project.id);
  });
});
