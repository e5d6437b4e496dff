import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { hostileFiles } from './hostile-files.js';
import type { Row } from './measure.js';

const GOAL = '≤ 5 s, ≤ 300 MB';
const PATIENCE = 120_000;

interface Ending {
  ended: string;
  took: number;
  megabytes: number;
}

/** Files made to hang a reader or to fill its memory: how each ends, after how long, and with how much memory. Each runs once, in a process of its own. */
export function benchHostile(only = ''): Row[] {
  const folder = mkdtempSync(join(tmpdir(), 'coomb-hostile-'));
  const rows = Object.entries(hostileFiles)
    .filter(([what]) => what.includes(only))
    .map(([what, { name, make }]): Row => {
      const path = join(folder, name);
      mkdirSync(folder, { recursive: true });
      const bytes = make();
      writeFileSync(path, bytes);
      const { ended, took, megabytes } = read(path);
      const row: Row = {
        what: `${what}: ${ended}, ${megabytes} MB`,
        size: `${Math.ceil(bytes.length / 1024).toLocaleString('en')} kB`,
        runs: 1,
        median: took,
        goal: GOAL,
      };
      if (only || process.env.COOMB_BENCH_ALOUD)
        console.log(took > 5000 || megabytes > 300 || ended.startsWith('BROKE') ? '!!' : '  ', took, 'ms', row.what, row.size);
      return row;
    });
  rmSync(folder, { recursive: true });
  return rows;
}

function read(path: string): Ending {
  const script = fileURLToPath(new URL('./read-hostile.mjs', import.meta.url));
  const { stdout, signal, stderr } = spawnSync(process.execPath, ['--expose-gc', script, path], { encoding: 'utf8', timeout: PATIENCE });
  const line = stdout.trim().split('\n').at(-1);
  if (line?.startsWith('{')) return JSON.parse(line) as Ending;
  return {
    ended: `BROKE: ${
      signal ??
      stderr
        .trim()
        .split('\n')
        .find((one) => /Error|FATAL/.test(one))
    }`,
    took: PATIENCE,
    megabytes: Number.NaN,
  };
}
