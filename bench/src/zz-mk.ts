import { writeFileSync } from 'node:fs';
import { hostileFiles } from './hostile-files.js';
for (const [w, { name, make }] of Object.entries(hostileFiles)) if (w.includes(process.argv[2]!)) writeFileSync('/tmp/hh-' + process.argv[3] + name.slice(1), make());
