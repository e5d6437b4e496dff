import { readFileSync } from 'node:fs';
import { readFileContent } from '@coomb/formats';

/** Reads one file in a process of its own and tells the most memory that it took, in megabytes, above what the process takes to stand there. */
const [path] = process.argv.slice(2);
await readFileContent('warm.csv', Buffer.from('ID,Title\nA,B'));
const before = process.memoryUsage().rss;
await readFileContent(path!, readFileSync(path!));
console.log(Math.round((process.resourceUsage().maxRSS * 1024 - before) / 1024 / 1024));
