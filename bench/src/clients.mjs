// Clients of a server, in a thread of their own: each reads outline, readiness and a sheet, over and over, while one of them edits.
import { parentPort, workerData } from 'node:worker_threads';

const { address, project, clients, rounds } = workerData;
const base = `${address}/api/projects/${project}`;
const times = { outline: [], readiness: [], sheet: [], edit: [], export: [] };

async function timed(list, work) {
  const start = performance.now();
  const response = await work();
  const bytes = await response.arrayBuffer();
  if (!response.ok) throw new Error(Buffer.from(bytes).toString());
  list.push(performance.now() - start);
  return bytes;
}

async function client(number) {
  for (let round = 0; round < rounds; round++) {
    const item = `${base}/items/SYS-${100 + number}`;
    const sheet = JSON.parse(Buffer.from(await timed(times.sheet, () => fetch(item))).toString());
    if (number === 0)
      await timed(times.edit, () =>
        fetch(item, {
          method: 'PATCH',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify({ revision: sheet.revision, title: `Edited ${round} ${Date.now()}` }),
        }),
      );
    await timed(times.outline, () => fetch(`${base}/outline`));
    await timed(times.readiness, () => fetch(`${base}/readiness`));
  }
}

await Promise.all(Array.from({ length: clients }, (_, number) => client(number)));
await Promise.all(Array.from({ length: clients }, () => timed(times.export, () => fetch(`${base}/collections/${workerData.collection}/export/csv`))));
parentPort.postMessage(times);
