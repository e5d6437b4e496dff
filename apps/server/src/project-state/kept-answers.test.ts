import { gunzipSync } from 'node:zlib';
import { get as httpGet, type IncomingHttpHeaders } from 'node:http';
import { buildUrl, editItem, getOutline, getReadiness, undo } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, makeProject, useServer } from '../testing/test-server.js';

interface Raw {
  status: number;
  headers: IncomingHttpHeaders;
  bytes: Buffer;
}

/** A request as it goes over the wire: nothing unpacked, nothing kept. */
function raw(address: string, headers: Record<string, string>): Promise<Raw> {
  return new Promise((resolve, reject) => {
    httpGet(address, { headers }, (response) => {
      const pieces: Buffer[] = [];
      response.on('data', (piece) => pieces.push(piece));
      response.on('end', () => resolve({ status: response.statusCode!, headers: response.headers, bytes: Buffer.concat(pieces) }));
    }).on('error', reject);
  });
}

describe('answers that a whole project goes into', () => {
  const server = useServer();

  async function scene() {
    const { client } = server;
    const { project, requirements } = await makeProject(client);
    const item = await addItem(client, project, requirements, 'Gate');
    const ask = (endpoint: { path: string }, headers: Record<string, string> = {}) => raw(server.address + buildUrl(endpoint.path, { project }), headers);
    return { client, project, item, ask };
  }

  it.each([
    ['the outline', getOutline],
    ['readiness', getReadiness],
  ])('%s comes packed or plain, and not again to those who have it', async (_, endpoint) => {
    const { client, project, item, ask } = await scene();
    const plain = await ask(endpoint);
    const packed = await ask(endpoint, { 'Accept-Encoding': 'gzip, br' });
    expect([plain.headers['content-encoding'], packed.headers['content-encoding']]).toEqual([undefined, 'gzip']);
    expect(gunzipSync(packed.bytes).equals(plain.bytes)).toBe(true);
    expect(plain.headers['content-type']).toBe('application/json; charset=utf-8');
    const tag = plain.headers.etag!;
    const again = await ask(endpoint, { 'If-None-Match': tag, 'Accept-Encoding': 'gzip' });
    expect([again.status, again.bytes.length, again.headers.etag]).toEqual([304, 0, tag]);
    await client.call(editItem, { params: { project, item: item.id }, body: { revision: item.revision, title: 'Gates' } });
    const changed = await ask(endpoint, { 'If-None-Match': tag });
    expect([changed.status, JSON.parse(changed.bytes.toString()).seq]).toEqual([200, JSON.parse(plain.bytes.toString()).seq + 1]);
    await client.call(undo, { params: { project } });
    expect((await ask(endpoint, { 'If-None-Match': changed.headers.etag! })).status).toBe(200);
  });

  it('are the same to all who ask at once, and hold over a restart', async () => {
    const { ask } = await scene();
    const all = await Promise.all(Array.from({ length: 20 }, () => ask(getOutline)));
    expect(new Set(all.map((one) => one.bytes.toString())).size).toBe(1);
    await server.restart();
    expect((await ask(getOutline, { 'If-None-Match': all[0]!.headers.etag! })).status).toBe(304);
  });

  it('of projects that are not there say so', async () => {
    const missing = await raw(`${server.address}/api/projects/01890000-0000-7000-8000-000000000099/outline`, {});
    expect([missing.status, JSON.parse(missing.bytes.toString()).error.code]).toEqual([404, 'not-found']);
  });

  it('other answers are packed too, the stream of changes is not', async () => {
    const { project } = await scene();
    const described = await raw(`${server.address}/api/openapi.json`, { 'Accept-Encoding': 'gzip' });
    expect(described.headers['content-encoding']).toBe('gzip');
    const control = new AbortController();
    const live = await fetch(`${server.address}/api/projects/${project}/live`, { headers: { 'Accept-Encoding': 'gzip' }, signal: control.signal });
    expect([live.status, live.headers.get('content-encoding')]).toEqual([200, null]);
    control.abort();
  });
});
