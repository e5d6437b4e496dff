import { connect } from 'node:net';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { expect, it, vi } from 'vitest';
import { FileWriter } from '../exports/file-writer.js';
import { startServer } from '../start-server.js';
import { readyFolder } from '../testing/make-template.js';

it('stops though somebody connects while it stops, and says nothing', async () => {
  const data = mkdtempSync(join(tmpdir(), 'coomb-stopping-'));
  const running = await startServer({ data, port: 0, host: '127.0.0.1', template: readyFolder });
  const { port } = new URL(running.address);
  const [calling, left] = [makeEvent(), makeEvent()];
  // Its parts take their time to end, and it listens still.
  vi.spyOn(running.app.get(FileWriter), 'onModuleDestroy').mockImplementation(async () => {
    const caller = connect(Number(port), '127.0.0.1', calling.done).on('error', () => {});
    await calling.promise;
    await setTimeout(50);
    caller.once('close', left.done);
  });
  await running.stop();
  await left.promise;
  await expect(fetch(`${running.address}/api/projects`)).rejects.toThrow();
  rmSync(data, { recursive: true });
}, 30_000);

function makeEvent() {
  let done = () => {};
  const promise = new Promise<void>((resolve) => {
    done = resolve;
  });
  return { promise, done: () => done() };
}
