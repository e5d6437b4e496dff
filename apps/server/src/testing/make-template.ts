import { existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { Engine } from '../database/engine.js';

export const templateFolder = join(process.cwd(), 'node_modules', '.cache', 'coomb', 'empty-database');

/** Makes an empty database once for all server tests: opening a copy is far faster than making one. */
export default async function makeTemplate(): Promise<void> {
  if (existsSync(templateFolder)) return;
  const making = `${templateFolder}.${process.pid}`;
  mkdirSync(dirname(making), { recursive: true });
  await (await Engine.open(making)).close();
  rmSync(templateFolder, { recursive: true, force: true });
  renameSync(making, templateFolder);
}
