import { readFileSync, writeFileSync } from 'node:fs';

/** Linux counts the peak anew when it is told to, so that starting and compiling are not taken for reading. Says whether it did. */
export function forgetPeak() {
  try {
    writeFileSync('/proc/self/clear_refs', '5');
    return true;
  } catch {
    return false;
  }
}

/** The most memory that this process took, in bytes, since it was forgotten. */
export function findPeak(isNew) {
  const status = isNew ? /VmHWM:\s+(\d+) kB/.exec(readFileSync('/proc/self/status', 'utf8'))?.[1] : undefined;
  return (status ? Number(status) : process.resourceUsage().maxRSS) * 1024;
}
