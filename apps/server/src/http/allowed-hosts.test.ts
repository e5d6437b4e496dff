import { request } from 'node:http';
import { errorReply } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { useServer } from '../testing/test-server.js';

describe('names that Coomb answers under', () => {
  const server = useServer({ names: ['weir.example', 'https://flood.example'] });
  /** Asks under a name of its own choosing, as a page does whose name was made to point here. */
  const ask = (host: string, headers: Record<string, string> = {}, method = 'GET', path = '/api/projects') =>
    new Promise<{ status: number; body: string }>((resolve, reject) => {
      const url = new URL(server.address);
      const sent = request(
        { host: url.hostname, port: url.port, path, method, headers: { Host: host, 'Content-Type': 'application/json', ...headers } },
        (response) => {
          let body = '';
          response.on('data', (chunk) => (body += chunk));
          response.on('end', () => resolve({ status: response.statusCode!, body }));
        },
      );
      sent.on('error', reject);
      sent.end(method === 'POST' ? '{"name":"X"}' : undefined);
    });
  const port = () => new URL(server.address).port;

  it.each(['127.0.0.1', 'localhost', 'LOCALHOST', 'localhost.', '[::1]', 'weir.example', 'flood.example'])('answers under %s', async (name) => {
    expect((await ask(`${name}:${port()}`)).status).toBe(200);
    expect((await ask(name)).status).toBe(200);
  });

  it.each([
    'evil.example',
    'localhost.evil.example',
    'weir.example.evil.example',
    '127.0.0.1.evil.example',
    'user@localhost',
    '192.168.1.20',
    '[::2]',
    'localhost:80:80',
  ])('neither tells nor changes anything under %j', async (name) => {
    for (const [method, path] of [
      ['GET', '/api/projects'],
      ['POST', '/api/projects'],
      ['GET', '/api/backup'],
      ['GET', '/'],
    ] as const) {
      const { status, body } = await ask(name, {}, method, path);
      expect(status).toBe(421);
      expect(body).not.toContain('"id"');
    }
  });

  it('says under which names it is known, and how to add one', async () => {
    const { body } = await ask('evil.example');
    expect(errorReply.parse(JSON.parse(body)).error).toMatchObject({
      code: 'host-refused',
      message: expect.stringMatching(/"evil\.example".*localhost.*weir\.example.*--name/),
    });
  });

  it('takes changes over an encrypting proxy only for names that were given as encrypted', async () => {
    expect((await ask('flood.example', { Origin: 'https://flood.example' }, 'POST')).status).toBe(200);
    expect((await ask('weir.example', { Origin: 'https://weir.example' }, 'POST')).status).toBe(403);
    expect((await ask('weir.example', { Origin: 'http://weir.example' }, 'POST')).status).toBe(200);
  });
});
