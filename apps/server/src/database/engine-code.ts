import { existsSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

/** A compiled module of WebAssembly. */
export type EngineCode = object;
/** The standard's own function, which the server's types do not have. */
declare const WebAssembly: { compile: (bytes: Uint8Array) => Promise<EngineCode> };

let compiled: Promise<EngineCode> | undefined;

/**
 * The database's own code, compiled once in a process: threads that are handed it start in half the time, and what one of them has made fast
 * is fast in the next. Undefined where the library keeps it elsewhere: then it compiles it itself.
 */
export function readEngineCode(): Promise<EngineCode | undefined> {
  const file = join(dirname(createRequire(import.meta.url).resolve('@electric-sql/pglite')), 'pglite.wasm');
  if (!compiled && existsSync(file)) compiled = WebAssembly.compile(readFileSync(file));
  return compiled ?? Promise.resolve(undefined);
}
