// npm run bench [-- core structure server page million imports clients growth past power rest formats hostile]: measures on generated data; prints tables and keeps them in bench/results.md.
import { build, install, run } from './prepare.mjs';

install();
build();
process.exitCode = run(process.execPath, ['--expose-gc', 'node_modules/tsx/dist/cli.mjs', 'bench/src/bench.ts', ...process.argv.slice(2)]);
