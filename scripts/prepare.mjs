// What the two commands share: installing, building, finding out whether either is needed. No dependency: runs before any is installed.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = dirname(dirname(fileURLToPath(import.meta.url)));
const cache = join(root, 'node_modules', '.cache', 'coomb');

export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (error) throw error;
  return status ?? 1;
}

function runOrStop(what, command, args) {
  const status = run(command, args);
  if (status === 0) return;
  console.error(`${what} failed. See the lines above.`);
  process.exit(status);
}

function isFresh(name, hash) {
  const file = join(cache, name);
  return existsSync(file) && readFileSync(file, 'utf8') === hash;
}

function remember(name, hash) {
  mkdirSync(cache, { recursive: true });
  writeFileSync(join(cache, name), hash);
}

function hashOf(paths) {
  const hash = createHash('sha256');
  const add = (path) => {
    const stat = statSync(path, { throwIfNoEntry: false });
    if (!stat) return;
    if (stat.isDirectory()) {
      for (const name of readdirSync(path).sort())
        if (!['node_modules', 'dist', 'dist-types'].includes(name) && !name.endsWith('.tsbuildinfo')) add(join(path, name));
    } else hash.update(path).update(readFileSync(path));
  };
  for (const path of paths) add(join(root, path));
  return hash.digest('hex');
}

/** For a server under glibc: blocks from 64 kB are given back when they are freed. Unsaid, it comes to keep up to 200 MB of them after imports. */
export const leanMemory = { MALLOC_MMAP_THRESHOLD_: '65536', MALLOC_TRIM_THRESHOLD_: '131072' };

/** Installs exactly what the lock file says, unless that is what is there. */
export function install() {
  const hash = hashOf(['package.json', 'package-lock.json']);
  if (existsSync(join(root, 'node_modules')) && isFresh('installed', hash)) return;
  runOrStop('Installing', 'npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
  remember('installed', hash);
}

/** Builds packages, server and web, unless nothing changed since. */
export function build() {
  const hash = hashOf(['package-lock.json', 'tsconfig.base.json', 'tsconfig.json', 'packages', 'apps/server/src', 'apps/server/tsconfig.json', 'apps/web']);
  const built = ['apps/server/dist/index.js', 'apps/web/dist/index.html'].every((path) => existsSync(join(root, path)));
  if (built && isFresh('built', hash)) return;
  runOrStop('Type checking', process.execPath, ['node_modules/typescript7/bin/tsc', '-b']);
  runOrStop('Building the web application', process.execPath, ['node_modules/vite/bin/vite.js', 'build', 'apps/web', '--logLevel', 'warn']);
  remember('built', hash);
}
