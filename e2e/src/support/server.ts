import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const root = join(import.meta.dirname, '..', '..', '..');
export const demoFile = (name: string) => join(root, 'demo', 'files', name);

export interface Started {
  address: string;
  data: string;
  process: ChildProcess;
  stop: () => Promise<void>;
}

/** Starts the built Coomb as its users do, on a folder of its own unless one is given. */
export function startCoomb(command: 'serve' | 'demo' = 'serve', data = mkdtempSync(join(tmpdir(), 'coomb-e2e-'))): Promise<Started> {
  const child = spawn(process.execPath, [join(root, 'apps/server/bin/coomb.js'), command, '--port', '0', '--data', data], {
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  return new Promise((resolve, reject) => {
    let said = '';
    const listen = (chunk: Buffer) => {
      said += chunk;
      const address = /ready at (http:\/\/\S+)/.exec(said)?.[1];
      if (address) resolve({ address, data, process: child, stop: () => stop(child) });
    };
    child.stdout.on('data', listen);
    child.stderr.on('data', listen);
    child.once('exit', (code) => reject(new Error(`Coomb ended with ${code}: ${said}`)));
  });
}

function stop(child: ChildProcess): Promise<void> {
  if (child.exitCode !== null) return Promise.resolve();
  return new Promise((resolve) => {
    child.removeAllListeners('exit');
    child.once('exit', () => resolve());
    child.kill('SIGTERM');
  });
}

export function removeData(data: string): void {
  rmSync(data, { recursive: true, force: true });
}
