import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

/**
 * A compiled worker by its path below the source folder, such as `tray/read-file.worker.js`: beside the compiled files, or in the build
 * when tests run from the source.
 */
export function findWorkerFile(path: string): string {
  const beside = fileURLToPath(new URL(`../${path}`, import.meta.url));
  return existsSync(beside) ? beside : fileURLToPath(new URL(`../../dist/${path}`, import.meta.url));
}
