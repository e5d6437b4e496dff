import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';
import { setTimeout } from 'node:timers/promises';
import type { Row } from './measure.js';

/** Threads that read the demo's files end after a minute. */
const REST_MS = 75_000;
const root = fileURLToPath(new URL('../..', import.meta.url));

/** The demo, first filled and then started again, each a while after it stands ready: how long the start took, and the memory it holds then. */
export async function benchDemoAtRest(): Promise<Row[]> {
  const folder = mkdtempSync(join(tmpdir(), 'coomb-rest-'));
  try {
    return [await rest('first start, with its imports', folder), await rest('start on the filled folder', folder)];
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

async function rest(what: string, folder: string): Promise<Row> {
  const start = performance.now();
  const demo = spawn(process.execPath, ['scripts/demo.mjs', '--port', '4391', '--data', join(folder, 'data')], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  for await (const line of createInterface(demo.stdout)) if (line.includes('ready at')) break;
  const took = performance.now() - start;
  await setTimeout(REST_MS);
  const server = Number(readFileSync(`/proc/${demo.pid}/task/${demo.pid}/children`, 'utf8').trim().split(' ').at(-1));
  const megabytes = Math.round(Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server}/status`, 'utf8'))![1]) / 1024);
  demo.kill('SIGTERM');
  await once(demo, 'exit');
  return { what: `the demo at rest, ${what}: ${megabytes} MB`, size: 'ready after', runs: 1, median: took, goal: '≤ 300 MB' };
}
