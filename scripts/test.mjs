// npm test: installs what it needs, builds, checks style and types, runs every test, and says how many really ran.
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, install, root, run } from './prepare.mjs';

function installBrowser() {
  if (existsSync('/usr/bin/chromium') && existsSync('/usr/bin/chromedriver')) return;
  if (process.getuid?.() !== 0 || !existsSync('/usr/bin/apt-get')) {
    console.error(
      'The end-to-end tests need Debian’s chromium and chromium-driver, and this is no root account on Debian. Install them and run npm test again.',
    );
    process.exit(1);
  }
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  run('apt-get', ['update', '-qq'], { env });
  const status = run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium', 'chromium-driver'], { env });
  if (status !== 0) process.exit(status);
}

install();
installBrowser();
build();
const lint = run(process.execPath, ['node_modules/@biomejs/biome/bin/biome', 'check', '.']);
const report = join(mkdtempSync(join(tmpdir(), 'coomb-test-')), 'report.json');
const status = run(
  process.execPath,
  ['node_modules/vitest/vitest.mjs', 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${report}`, ...process.argv.slice(2)],
  { cwd: root },
);
const { numPassedTests = 0, numFailedTests = 0, numFailedTestSuites = 0 } = existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : {};
const failed = numFailedTests + (numFailedTests === 0 && status !== 0 ? Math.max(1, numFailedTestSuites) : 0) + (lint === 0 ? 0 : 1);
if (lint !== 0) console.log('Style: failed. What to mend is printed above the tests: npx biome check .');
console.log(`${numPassedTests} passed, ${failed} failed`);
process.exitCode = failed === 0 && numPassedTests > 0 ? 0 : 1;
