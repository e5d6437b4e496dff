import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { TraceGraph } from '@coomb/core';
import { openDatabase, ProjectStateRepo, startServer } from '@coomb/server';
import { makeLargeCsv, makeLargeDocument } from './large-files.js';
import { benchProject as project, collectionOf, fillLarge, idOf, linkKinds } from './large-project.js';
import { clock, openDesk } from './desk.js';
import { medianOf, type Row, time } from './measure.js';

const ITEMS = 50_000;
const LINKS = 200_000;
/** The server on a large project: start, first load, first pages, one change, an import. `use` is given the folder and the rows before it goes. */
export async function benchServer(use: (folder: string, rows: Row[]) => Promise<void>): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'coomb-bench-'));
  try {
    await fillLarge(folder, { items: ITEMS, links: LINKS });
    const size = `${ITEMS.toLocaleString('en')} items, ${LINKS.toLocaleString('en')} links`;
    const graph = await benchGraph(folder);
    const starts: number[] = [];
    const loads: number[] = [];
    for (let i = 0; i < 3; i++) {
      const start = performance.now();
      const server = await startServer({ data: folder, port: 0, host: '127.0.0.1' });
      starts.push(performance.now() - start);
      const loading = performance.now();
      await (await fetch(`${server.address}/api/projects/${project}/items/SYS-1/trace`)).json();
      loads.push(performance.now() - loading);
      await server.stop();
    }
    const server = await startServer({ data: folder, port: 0, host: '127.0.0.1' });
    const get = async (path: string) => (await fetch(`${server.address}/api/projects/${project}${path}`)).text();
    await get('');
    const rows: Row[] = [
      { what: 'start of the server on an existing folder', size, runs: 3, median: medianOf(starts) },
      { what: 'load a project into memory, by its first request', size, runs: 3, median: medianOf(loads) },
      { what: 'load the trace graph from the database and build it', size, runs: 5, median: graph, goal: '≤ 600 ms' },
    ];
    const page = async (what: string, path: string) => rows.push({ what, size, runs: 7, median: await time(7, () => get(path)), goal: '≤ 300 ms' });
    await page('section: the whole outline', '/outline');
    await page('readiness: every figure', '/readiness');
    await page('read: first page', `/collections/${collectionOf.requirement!.id}/reading?limit=100`);
    await page('matrix: links of 22,500 × 10,000', `/links?left=${collectionOf.requirement!.id}&right=${collectionOf.testCase!.id}`);
    await page('item sheet', '/items/SYS-100');
    const finding = performance.now();
    await get('/find?words=level');
    rows.push({ what: 'find: the first time, with every text read', size, runs: 1, median: performance.now() - finding });
    for (const [what, words] of [
      ['a reference', 'SYS-4999'],
      ['two words, beginnings', 'item 4999'],
      ['words of every text', 'the level hold'],
      ['a script without blanks', '水門'],
    ] as const)
      rows.push({ what: `find: ${what}`, size, runs: 15, median: await time(15, () => get(`/find?words=${encodeURIComponent(words)}`)), goal: '≤ 50 ms' });
    await page('a figure opened', '/figures/rule:tested:notMet');
    rows.push(...(await benchLinks(server.address, size)), ...(await benchRegister(server.address, size)), ...(await benchMatrix(server.address, size)));
    rows.push(await benchChange(server.address, size));
    rows.push(await benchImport(server.address), ...(await benchAgain(server.address)), ...(await benchSave(server.address)));
    await server.stop();
    await use(folder, rows);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Lists of links and of findings: the first time, which reads what is kept of every link, and from then on; a list is made anew by another filter. */
async function benchLinks(address: string, size: string): Promise<Row[]> {
  const base = `${address}/api/projects/${project}`;
  const get = async (path: string) => {
    const response = await fetch(`${base}${path}`);
    if (!response.ok) throw new Error(await response.text());
    await response.text();
  };
  const post = (path: string, body: object) =>
    fetch(`${base}${path}`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }).then((response) =>
      response.text(),
    );
  const row = (what: string, runs: number, median: number, goal?: string): Row => ({ what, size, runs, median, ...(goal && { goal }) });
  const first = await time(1, () => get('/link-list?limit=100'));
  let turn = 0;
  const sorts = ['kind', 'to', 'from', 'person', 'at'];
  const anew = await time(5, () => get(`/link-list?sort=${sorts[turn++ % sorts.length]}&group=kind`));
  let offset = 0;
  const next = await time(15, () => get(`/link-list?offset=${(offset += 9000)}&limit=100`));
  const found = await time(1, () => get('/findings?limit=200'));
  const again = await time(7, () => get('/findings?rule=gap:tested&limit=200'));
  const suspects = await time(5, () => get('/suspects'));
  let item = 0;
  const impact = await time(15, () => post('/impact', { items: [`SYS-${100 + (item += 7)}`] }));
  return [
    row('all links: the first time, with what is kept of each', 1, first),
    row('all links: sorted and grouped anew', 5, anew, '≤ 300 ms'),
    row('all links: the next window', 15, next, '≤ 50 ms'),
    row('findings: every rule asked', 1, found),
    row('findings: another window', 7, again, '≤ 100 ms'),
    row('suspect links by their changes', 5, suspects, '≤ 300 ms'),
    row('impact of one item, with independent ways', 15, impact, '≤ 300 ms'),
  ];
}

/** Everything against everything, and needs against the tests of what was derived from them. */
async function benchMatrix(address: string, size: string): Promise<Row[]> {
  const ask = async (body: object) => {
    const response = await fetch(`${address}/api/projects/${project}/matrix`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ rows: {}, columns: {}, ...body }),
    });
    if (!response.ok) throw new Error(await response.text());
    await response.text();
  };
  const through = [
    [
      { linkKind: 'derives', end: 'to' },
      { linkKind: 'verifies', end: 'to' },
    ],
  ];
  const row = (what: string, median: number, goal?: string): Row => ({ what, size, runs: 5, median, ...(goal && { goal }) });
  return [
    row('matrix: every link of the project', await time(5, () => ask({})), '≤ 1 s'),
    row('matrix: marks through items between', await time(5, () => ask({ marks: through }))),
  ];
}

/** A register of ten columns, three of them through links. */
async function benchRegister(address: string, size: string): Promise<Row[]> {
  const verified = [{ linkKind: 'verifies', end: 'to' }];
  const own = ['reference', 'title', 'kind', 'state', 'place', 'links', 'changedAt'].map((sort) => ({ id: sort, way: [], shown: { sort } }));
  const through = (['list', 'count'] as const).map((as) => ({ id: as, way: verified, shown: { sort: 'reference' }, as }));
  const columns = [...own, ...through, { id: 'worst', way: verified, shown: { sort: 'result' }, as: 'worst' }];
  const ask = async (what: object = {}, offset = 0) => {
    const response = await fetch(`${address}/api/projects/${project}/register`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ what: { columns, ...what }, offset, limit: 100 }),
    });
    if (!response.ok) throw new Error(await response.text());
    await response.text();
  };
  let turn = 0;
  let offset = 0;
  const sorts = ['worst', 'title', 'links', 'place', 'state'];
  const untested = { way: verified, of: 'no', shown: { sort: 'reference' }, test: 'given' };
  const row = (what: string, runs: number, median: number, goal?: string): Row => ({ what, size, runs, median, ...(goal && { goal }) });
  return [
    row('register: the first time, with the fields of all items', 1, await time(1, () => ask())),
    row('register: the next window of ten columns', 15, await time(15, () => ask({}, (offset += 3000))), '≤ 50 ms'),
    row('register: sorted anew', 5, await time(5, () => ask({ sort: [{ column: sorts[turn++ % sorts.length] }] })), '≤ 300 ms'),
    row('register: grouped', 1, await time(1, () => ask({ group: ['state'] })), '≤ 300 ms'),
    row('register: filtered through links', 1, await time(1, () => ask({ conditions: [untested] })), '≤ 300 ms'),
  ];
}

async function benchGraph(folder: string): Promise<number> {
  const { db, close } = await openDatabase(folder);
  const repo = new ProjectStateRepo(db, '');
  const ids = Array.from({ length: ITEMS }, (_, node) => ({ id: idOf(3, node) }));
  const kinds = new Map(Object.entries(linkKinds));
  const median = await time(5, async () => TraceGraph.build({ nodes: ITEMS, ...(await repo.loadLinks(project, ids, kinds)) }));
  await close();
  return median;
}

async function benchChange(address: string, size: string): Promise<Row> {
  const item = `${address}/api/projects/${project}/items/SYS-200`;
  let turn = 0;
  const median = await time(15, async () => {
    const { revision } = (await (await fetch(item)).json()) as { revision: number };
    const response = await fetch(item, {
      method: 'PATCH',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ revision, title: `Title ${turn++}` }),
    });
    if (!response.ok) throw new Error(await response.text());
  });
  return { what: 'edit a title: read, change, recorded', size, runs: 15, median };
}

async function benchImport(address: string): Promise<Row> {
  const bytes = await makeLargeDocument();
  const median = await time(3, async () => {
    const desk = await openDesk(address);
    await desk.run(await desk.handIn('large.docx', bytes), { collection: COLLECTION });
  });
  return { what: 'import a .docx: upload, read, store, recorded', size: '5,000 requirements', runs: 3, median };
}

const COLLECTION = { name: 'Large', prefix: 'SYS', holds: 'specification' };

/** Ten thousand rows, and the same with every tenth changed: imported, compared, imported again, while another request asks for the projects. */
async function benchAgain(address: string): Promise<Row[]> {
  const rows = 10_000;
  const first = makeLargeCsv(rows);
  const second = Buffer.from(first.toString().replace(/^(SYS-\d*0,Title \d+)/gm, '$1 of issue two'));
  const times = { import: [] as number[], compare: [] as number[], again: [] as number[], waits: [] as number[] };
  for (let round = 0; round < 3; round++) {
    const desk = await openDesk(address);
    const other = watchWaits(address);
    try {
      const one = await desk.handIn('rows.csv', first);
      times.import.push(await clock(() => desk.run(one, { collection: COLLECTION })));
      const source = (await desk.get<{ id: string }[]>('/sources'))[0]!.id;
      const two = await desk.handIn('rows 2.csv', second);
      let seq = 0;
      times.compare.push(
        await clock(async () => {
          const { counts, seq: at } = await desk.post<{ seq: number; counts: { changed: number } }>(`/tray/${two}/compare`, { source });
          if (counts.changed !== rows / 10) throw new Error(`${counts.changed} rows differ`);
          seq = at;
        }),
      );
      times.again.push(await clock(() => desk.run(two, { again: { source, seq } })));
    } finally {
      times.waits.push(await other.stop());
    }
  }
  const size = '10,000 rows of 8 columns';
  const row = (what: string, list: number[]): Row => ({ what, size, runs: 3, median: medianOf(list) });
  return [
    row('import a .csv: store, recorded', times.import),
    row('compare a newer version, every tenth row changed', times.compare),
    row('import it again', times.again),
    row('longest wait of another request meanwhile', times.waits),
  ];
}

/** The requirements of the project as a file of each format, read back by its recipe as well, while another request asks for the projects. */
async function benchSave(address: string): Promise<Row[]> {
  const collection = collectionOf.requirement!.id;
  const rows: Row[] = [];
  const other = watchWaits(address);
  let out = 0;
  for (const format of ['csv', 'xlsx', 'md', 'reqif']) {
    const save = async () => (await fetch(`${address}/api/projects/${project}/collections/${collection}/export/${format}`)).arrayBuffer();
    const saves: number[] = [];
    // After a change each time, for the same file of the same change is written once only.
    for (let round = 0; round < 4; round++) {
      await benchChange(address, '');
      saves.push(await clock(save));
    }
    saves.shift();
    const start = performance.now();
    const body = JSON.stringify({ collection });
    const headers = { 'Content-Type': 'application/json' };
    const response = await fetch(`${address}/api/projects/${project}/export/${format}/read-back`, { method: 'POST', headers, body });
    const back = (await response.json()) as { items: { out: number; back: number }; links: { out: number; back: number } };
    if (back.items.back !== back.items.out || back.links.back !== back.links.out) throw new Error(`.${format} brings back ${JSON.stringify(back)}`);
    out = back.items.out;
    rows.push({ what: `save as .${format}`, size: '', runs: 3, median: medianOf(saves) });
    rows.push({ what: `save as .${format} and read it back by its recipe`, size: '', runs: 1, median: performance.now() - start });
  }
  rows.push({ what: 'longest wait of another request meanwhile', size: '', runs: 1, median: await other.stop() });
  return rows.map((row) => ({ ...row, size: `${out.toLocaleString('en')} items and all their links` }));
}

/** Asks for the projects over and over; tells the longest answer in milliseconds when it is stopped. */
function watchWaits(address: string): { stop: () => Promise<number> } {
  let running = true;
  const watching = (async () => {
    let longest = 0;
    while (running) {
      longest = Math.max(longest, await clock(async () => (await fetch(`${address}/api/projects`)).text()));
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
    return longest;
  })();
  return {
    stop: () => {
      running = false;
      return watching;
    },
  };
}
