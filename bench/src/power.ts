import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import type { Row } from './measure.js';

const CUTS = 200;
const root = fileURLToPath(new URL('../..', import.meta.url));

/** The test of cuts of power, with more of them than in every run of the tests: its words are the row. */
export function benchPower(): Row[] {
  const start = performance.now();
  const { status, stdout } = spawnSync(
    process.execPath,
    ['node_modules/vitest/vitest.mjs', 'run', '--project', 'server', 'apps/server/src/database/durability.test.ts', '--reporter', 'json'],
    { cwd: root, env: { ...process.env, COOMB_CUTS: String(CUTS) }, encoding: 'utf8' },
  );
  const { numPassedTests, numFailedTests } = JSON.parse(stdout.slice(stdout.indexOf('{"num'))) as Record<string, number>;
  const ended =
    status === 0 && numFailedTests === 0 && numPassedTests! > 0 ? 'nothing that was acknowledged is lost' : `BROKE: ${numFailedTests} of the tests fail`;
  return [
    { what: `cuts of power at random moments, each opened anew: ${ended}`, size: `${CUTS} cuts`, runs: 1, median: performance.now() - start, goal: '0 lost' },
  ];
}
