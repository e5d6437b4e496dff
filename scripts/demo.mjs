// npm run demo [-- --fresh --port 4280 --data FOLDER]: installs, builds and starts Coomb on the demo project.
import { spawn } from 'node:child_process';
import { build, install, leanMemory, root } from './prepare.mjs';

install();
build();
const server = spawn(process.execPath, ['apps/server/bin/coomb.js', 'demo', ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
  env: { ...leanMemory, ...process.env },
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => {
  process.exitCode = code ?? 0;
});
