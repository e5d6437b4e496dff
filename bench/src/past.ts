import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startServer } from '@coomb/server';
import { benchProject, fillLarge } from './large-project.js';
import { medianOf, type Row } from './measure.js';

const ITEMS = 50_000;
const LINKS = 200_000;
const CHANGES = 110_000;

/** A large project as of earlier changes, each built for the first time and given as an outline. */
export async function benchPast(): Promise<Row[]> {
  const folder = mkdtempSync(join(tmpdir(), 'coomb-past-'));
  try {
    await fillLarge(folder, { items: ITEMS, links: LINKS, changes: CHANGES });
    const server = await startServer({ data: folder, port: 0, host: '127.0.0.1' });
    const read = async (path: string) => {
      const start = performance.now();
      const response = await fetch(`${server.address}/api/projects/${benchProject}${path}`);
      if (!response.ok) throw new Error(await response.text());
      await response.arrayBuffer();
      return performance.now() - start;
    };
    await read('/outline');
    const at = async (what: string, seqs: number[], goal: string): Promise<Row> => {
      const times: number[] = [];
      for (const seq of seqs) times.push(await read(`/outline?asOf=${seq}`));
      return {
        what,
        size: `${ITEMS.toLocaleString('en')} items, ${LINKS.toLocaleString('en')} links, ${CHANGES.toLocaleString('en')} changes`,
        runs: times.length,
        median: medianOf(times),
        goal,
      };
    };
    const last = CHANGES + 1;
    const rows = [
      await at(
        'the outline as it stood 100 changes ago',
        [0, 1, 2].map((one) => last - 100 - one),
        '≤ 1 s',
      ),
      await at(
        'the outline as it stood 10,000 changes ago',
        [0, 1, 2].map((one) => last - 10_000 - one),
        '≤ 1 s',
      ),
      await at('the outline as it stood after the first changes', [1, 2, 3], '≤ 3 s'),
    ];
    const again = [await read('/outline?asOf=1'), await read('/readiness?asOf=1'), await read('/items/SYS-200?asOf=1')];
    rows.push({ what: 'the same once more, readiness, an item', size: rows[0]!.size, runs: 3, median: medianOf(again), goal: '≤ 300 ms' });
    await server.stop();
    return rows;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
