import { readFileSync, writeFileSync } from 'node:fs';
import { readFileContent } from '@coomb/formats';

// Plain JavaScript on the built packages, as the server runs: a loader that compiles on the way would be counted as well.
/** Reads one file in a process of its own and tells the most memory that it took meanwhile, in megabytes, above what the process takes to stand there. */
const [path] = process.argv.slice(2);
await readFileContent('warm.csv', Buffer.from('ID,Title\nA,B'));
globalThis.gc?.();
const before = process.memoryUsage().rss;
const forgets = forgetPeak();
await readFileContent(path, readFileSync(path));
console.log(Math.max(0, Math.round((findPeak(forgets) - before) / 1024 / 1024)));

/** Linux counts the peak anew when it is told to, so that starting and compiling are not taken for reading. */
function forgetPeak() {
  try {
    writeFileSync('/proc/self/clear_refs', '5');
    return true;
  } catch {
    return false;
  }
}

function findPeak(isNew) {
  const status = isNew ? /VmHWM:\s+(\d+) kB/.exec(readFileSync('/proc/self/status', 'utf8'))?.[1] : undefined;
  return (status ? Number(status) : process.resourceUsage().maxRSS) * 1024;
}
