import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { setTimeout } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { clock, openDesk } from './desk.js';
import { makeLargeCsv } from './large-files.js';
import { medianOf, quantile, type Row, show } from './measure.js';

const ROWS = 50_000;
const COLLECTION = { name: 'Large', prefix: 'SYS', holds: 'specification' };
const command = fileURLToPath(new URL('../../apps/server/bin/coomb.js', import.meta.url));

type Waits = Record<'figures' | 'sheet' | 'edit', number[]>;

/**
 * Fifty thousand rows imported, compared with a newer version, imported again and taken back, while others look at figures (of memory), read
 * an item (of the database) and edit it, in another project. The server is a process of its own.
 */
export async function benchImports(): Promise<Row[]> {
  const folder = mkdtempSync(join(tmpdir(), 'coomb-imports-'));
  const server = spawn(process.execPath, [command, 'serve', '--port', '4392', '--data', folder, '--copies', '0'], { stdio: ['ignore', 'pipe', 'inherit'] });
  try {
    for await (const line of createInterface(server.stdout)) if (line.includes('ready at')) break;
    return await measure('http://127.0.0.1:4392');
  } finally {
    server.kill('SIGTERM');
    await once(server, 'exit');
    rmSync(folder, { recursive: true, force: true });
  }
}

async function measure(address: string): Promise<Row[]> {
  const first = makeLargeCsv(ROWS);
  const second = Buffer.from(first.toString().replace(/^(SYS-\d*0,Title \d+)/gm, '$1 of issue two'));
  const other = await openOther(address);
  const desk = await openDesk(address);
  const rows: Row[] = [];
  const meanwhile = async (what: string, work: () => Promise<unknown>) => {
    const watch = other.watch();
    const took = await clock(work);
    rows.push({ what, size: `${ROWS.toLocaleString('en')} rows of 8 columns`, runs: 1, median: took });
    for (const [name, waits] of Object.entries(await watch.stop()))
      if (waits.length > 0)
        rows.push({
          what: `— ${name} of another project meanwhile; 95 of 100 within ${show(quantile(waits, 0.95))}, the longest ${show(Math.max(...waits))}`,
          size: '',
          runs: waits.length,
          median: medianOf(waits),
          goal: '≤ 100 ms',
        });
  };
  let one = '';
  let two = '';
  let comparison = { seq: 0 };
  let source = '';
  await meanwhile('hand in a .csv: upload, read, propose', async () => (one = await desk.handIn('rows.csv', first)));
  await meanwhile('import it', () => desk.run(one, { collection: COLLECTION }));
  await meanwhile('hand in a newer version, and compare', async () => {
    source = (await desk.get<{ id: string }[]>('/sources'))[0]!.id;
    two = await desk.handIn('rows 2.csv', second);
    comparison = await desk.post<{ seq: number }>(`/tray/${two}/compare`, { source });
  });
  await meanwhile('import it, every tenth row changed', () => desk.run(two, { again: { source, seq: comparison.seq } }));
  await meanwhile('take the second import back', () => desk.post('/undo', {}));
  return rows;
}

/** A small project that others work in. */
async function openOther(address: string) {
  const desk = await openDesk(address, 'Other');
  const collection = await desk.post<{ id: string }>('/collections', { name: 'Needs', holds: 'specification', prefix: 'N', kind: 'need' });
  const { id } = await desk.post<{ id: string }>('/items', { collection: collection.id, title: 'Quiet work' });
  let revision = 1;
  const acts: Record<keyof Waits, { act: () => Promise<unknown>; pause: number }> = {
    figures: { act: () => desk.get('/readiness'), pause: 40 },
    sheet: { act: () => desk.get(`/items/${id}`), pause: 60 },
    edit: { act: () => desk.send(`/items/${id}`, 'PATCH', { revision, title: `Quiet work ${revision++}` }), pause: 500 },
  };
  return {
    watch(): { stop: () => Promise<Waits> } {
      const waits: Waits = { figures: [], sheet: [], edit: [] };
      let running = true;
      const watching = Object.entries(acts).map(async ([name, { act, pause }]) => {
        while (running) {
          waits[name as keyof Waits].push(await clock(act));
          await setTimeout(pause);
        }
      });
      return {
        stop: async () => {
          running = false;
          await Promise.all(watching);
          return waits;
        },
      };
    },
  };
}
