import { setTimeout } from 'node:timers/promises';
import { buildUrl, exportCollection, tryExport } from '@coomb/contract';
import { defaultScheme } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { addItem, makeProject, useServer } from '../testing/test-server.js';
import { ExportsService } from './exports.service.js';
import { FileWriter } from './file-writer.js';
import { GrowingFile } from './growing-file.js';
import type { Slice } from './read-scene.js';

/** Slices without end, and whether somebody still takes them. */
function endless() {
  const seen = { given: 0, left: false };
  async function* slices(): AsyncGenerator<Slice> {
    try {
      for (;;) {
        seen.given++;
        yield { parts: [], rows: '[]' };
        await setTimeout(5);
      }
    } finally {
      seen.left = true;
    }
  }
  return { seen, supply: { slices, findFiles: async () => [] } };
}
const task = {
  format: 'csv' as const,
  head: { name: 'Gates', kind: 'requirement', scheme: defaultScheme, columns: [] } as never,
  now: new Date(0),
  partner: undefined,
};

describe('a save that is left', () => {
  it('ends the thread that writes it and what reads for it', async () => {
    const writer = new FileWriter();
    const leaving = new AbortController();
    const { seen, supply } = endless();
    const run = writer.run({ ...task, wants: 'file' }, supply, { signal: leaving.signal });
    run.catch(() => {});
    await expect.poll(() => seen.given, { timeout: 20_000 }).toBeGreaterThan(3);
    leaving.abort();
    await expect(run).rejects.toMatchObject({ name: 'AbortError' });
    await expect.poll(() => seen.left, { timeout: 5000 }).toBe(true);
    await writer.onModuleDestroy();
  });

  it('goes on while anybody who asked for the same is there', () => {
    let abandoned = 0;
    const file = new GrowingFile(() => abandoned++);
    const [one, other] = [new AbortController(), new AbortController()];
    file.join(one.signal);
    file.join(other.signal);
    one.abort();
    expect(abandoned).toBe(0);
    other.abort();
    expect(abandoned).toBe(1);
    const whole = new GrowingFile(() => abandoned++);
    const last = new AbortController();
    whole.join(last.signal);
    whole.end();
    last.abort();
    expect(abandoned).toBe(1);
  });
});

describe('people who leave', () => {
  const server = useServer();
  it('hold up nobody who saves after them', async () => {
    const { project, requirements } = await makeProject(server.client);
    for (let count = 0; count < 3; count++) await addItem(server.client, project, requirements, `Gate ${count}`);
    const address = `${server.address}${buildUrl(exportCollection.path, { project, collection: requirements, format: 'xlsx' })}`;
    for (let round = 0; round < 4; round++) {
      const leaving = new AbortController();
      const left = [
        fetch(address, { signal: leaving.signal }),
        fetch(`${server.address}${buildUrl(tryExport.path, { project, format: 'md' })}`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify({ collection: requirements }),
          signal: leaving.signal,
        }),
      ];
      await setTimeout(round * 15);
      leaving.abort();
      await Promise.allSettled(left);
    }
    await expectFile(await fetch(address));
  });

  it('leave a file that is begun anew for who asks for it next, though its turn had not come', async () => {
    const { project, requirements } = await makeProject(server.client, 'Lower pond');
    await addItem(server.client, project, requirements, 'Gate');
    const before = new AbortController();
    const { seen, supply } = endless();
    const running = server.part(FileWriter).run({ ...task, wants: 'file' }, supply, { signal: before.signal });
    running.catch(() => {});
    await expect.poll(() => seen.given, { timeout: 20_000 }).toBeGreaterThan(1);
    const ask = (signal: AbortSignal) => server.part(ExportsService).export(project, { collection: requirements }, 'xlsx', signal);
    const [leaving, staying] = [new AbortController(), new AbortController().signal];
    const left = await ask(leaving.signal);
    leaving.abort();
    const kept = await ask(staying);
    expect(await ask(staying)).toBe(kept);
    await expect(left.name()).rejects.toMatchObject({ name: 'AbortError' });
    await expect(ask(leaving.signal)).rejects.toMatchObject({ name: 'AbortError' });
    const next = fetch(`${server.address}${buildUrl(exportCollection.path, { project, collection: requirements, format: 'xlsx' })}`);
    before.abort();
    await expectFile(await next);
    expect(await kept.name()).toMatch(/xlsx$/);
  });

  async function expectFile(response: Response) {
    expect([response.status, (await response.arrayBuffer()).byteLength > 1000]).toEqual([200, true]);
  }
});
