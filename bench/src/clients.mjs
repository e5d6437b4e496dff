// Clients of a server, in a thread of their own: each reads outline, readiness and a sheet, over and over, while one of them edits.
import { Agent, request } from 'node:http';
import { parentPort, workerData } from 'node:worker_threads';

const { address, project, clients, rounds } = workerData;
const base = `${address}/api/projects/${project}`;
const times = { outline: [], readiness: [], sheet: [], edit: [], export: [] };

const agent = new Agent({ keepAlive: true });

/** As browsers ask: packed, which is left packed here, for it is the server that is measured. */
function ask(path, { method = 'GET', body, packed = true } = {}) {
  return new Promise((resolve, reject) => {
    const headers = { ...(packed && { 'Accept-Encoding': 'gzip' }), ...(body && { 'Content-Type': 'application/json' }) };
    request(`${base}${path}`, { method, headers, agent }, (response) => {
      const pieces = [];
      response.on('data', (piece) => pieces.push(piece));
      response.on('end', () => (response.statusCode === 200 ? resolve(Buffer.concat(pieces)) : reject(new Error(Buffer.concat(pieces).toString()))));
    })
      .on('error', reject)
      .end(body);
  });
}

async function timed(list, ...call) {
  const start = performance.now();
  const bytes = await ask(...call);
  list.push(performance.now() - start);
  return bytes;
}

async function client(number) {
  for (let round = 0; round < rounds; round++) {
    const item = `/items/SYS-${100 + number}`;
    const { revision } = JSON.parse((await timed(times.sheet, item, { packed: false })).toString());
    if (number === 0)
      await timed(times.edit, item, { method: 'PATCH', packed: false, body: JSON.stringify({ revision, title: `Edited ${round} ${Date.now()}` }) });
    await timed(times.outline, '/outline');
    await timed(times.readiness, '/readiness');
  }
}

await Promise.all(Array.from({ length: clients }, (_, number) => client(number)));
await Promise.all(Array.from({ length: clients }, () => timed(times.export, `/collections/${workerData.collection}/export/csv`)));
parentPort.postMessage(times);
