import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { startServer } from '@coomb/server';
import { benchProject, collectionOf, fillLarge } from './large-project.js';
import { medianOf, quantile, type Row, show } from './measure.js';

const ITEMS = 20_000;
const LINKS = 80_000;
const goals: Record<string, string> = { outline: '≤ 150 ms', readiness: '≤ 150 ms' };

/** Twenty clients that read all at once and over and over, while one of them edits: each edit makes every answer anew. */
export async function benchClients(): Promise<Row[]> {
  const folder = mkdtempSync(join(tmpdir(), 'coomb-clients-'));
  try {
    await fillLarge(folder, { items: ITEMS, links: LINKS });
    const server = await startServer({ data: folder, port: 0, host: '127.0.0.1' });
    const workerData = { address: server.address, project: benchProject, clients: 20, rounds: 10, collection: collectionOf.requirement!.id };
    const worker = new Worker(new URL('./clients.mjs', import.meta.url), { workerData });
    const times = await new Promise<Record<string, number[]>>((resolve, reject) => worker.once('message', resolve).once('error', reject));
    await server.stop();
    return Object.entries(times).map(([what, list]) => ({
      what: `20 clients at once, one of them editing: ${what === 'export' ? 'the same .csv' : what}; 95 of 100 within ${show(quantile(list, 0.95))}`,
      size: `${ITEMS.toLocaleString('en')} items, ${LINKS.toLocaleString('en')} links`,
      runs: list.length,
      median: medianOf(list),
      ...(goals[what] && { goal: goals[what] }),
    }));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
