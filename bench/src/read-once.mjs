import { readFileSync } from 'node:fs';
import { readFileContent } from '@coomb/formats';
import { findPeak, forgetPeak } from './peak-memory.mjs';

// Plain JavaScript on the built packages, as the server runs: a loader that compiles on the way would be counted as well.
/** Reads one file in a process of its own and tells the most memory that it took meanwhile, in megabytes, above what the process takes to stand there. */
const [path] = process.argv.slice(2);
await readFileContent('warm.csv', Buffer.from('ID,Title\nA,B'));
globalThis.gc?.();
const before = process.memoryUsage().rss;
const forgets = forgetPeak();
await readFileContent(path, readFileSync(path));
console.log(Math.max(0, Math.round((findPeak(forgets) - before) / 1024 / 1024)));
