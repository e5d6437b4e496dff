import { setImmediate } from 'node:timers/promises';
import { defaultScheme, takeApart } from '@coomb/core';
import { buildPartRows, buildReadiness, OutlineKeeper, ProjectState } from '@coomb/server';
import { generate } from './generate.js';
import { collectionOf, idOf, linkKinds } from './large-project.js';
import { medianOf, type Row } from './measure.js';

type Parts = ConstructorParameters<typeof ProjectState>[0];
type Changes = Parameters<ProjectState['apply']>[0];

/** A text in one piece: what is put together stays in pieces until somebody looks at it. */
const own = (text: string) => Buffer.from(text, 'latin1').toString('latin1');

/** A project in memory, with everything in it that one looks at already computed. */
function build(items: number, links: number): ProjectState {
  const { kinds, from, to, linkKind } = generate(items, links, linkKinds);
  const id = Buffer.alloc(links * 16);
  for (let link = 0; link < links; link++) id.writeUInt32BE(link + 1, link * 16 + 12);
  const first = () => new Uint32Array(links).fill(1);
  let part = 0;
  return new ProjectState({
    ...{ id: 'bench', name: 'Bench', createdAt: '', day: '2026-11-27', contentSeq: 1, life: 'bench', seq: 1, archived: false, out: false, sources: 0 },
    schemeParts: buildPartRows('bench', takeApart(defaultScheme), () => `part ${part++}`),
    collections: Object.entries(collectionOf).map(([kind, one], rank) => ({
      ...one,
      kind,
      rank,
      projectId: 'bench',
      revision: 1,
      withdrawn: false,
      setId: null,
    })) as Parts['collections'],
    // Of one shape and with texts of their own, as they are loaded.
    items: kinds.map((kind, node) => ({
      id: own(idOf(3, node)),
      collectionId: collectionOf[kind]!.id,
      kind,
      reference: own(`${collectionOf[kind]!.prefix}-${node}`),
      title: own(`Item ${node} of the weir`),
      heading: false,
      parentId: null,
      rank: node,
      withdrawn: false,
      meaningSeq: 1,
      revision: 1,
      bindings: [],
      node,
    })),
    links: { id, from, to, kind: linkKind, fromSeq: first(), toSeq: first(), inUsage: new Map() },
    ...{ sets: [], waivers: [], usages: [], latest: new Map(), kept: { ruleFields: new Map(), numbers: new Map() }, foundFields: [] },
  });
}

const RUNS = 15;

/** Memory in use once everything that is not has been given back: what ended a moment ago is held until the next turn. */
async function rest(): Promise<NodeJS.MemoryUsage> {
  for (let round = 0; round < 3; round++) {
    await setImmediate();
    global.gc?.();
  }
  return process.memoryUsage();
}

/** What one change costs everybody: an item added, one reworded, a link made, and what pages are told of it. */
async function measure(items: number, links: number, goals: { item: string; pages: string; heap: string }): Promise<Row[]> {
  const before = await rest();
  const state = build(items, links);
  buildReadiness(state);
  const keeper = new OutlineKeeper({ get: async () => state } as never);
  keeper.noteTold(state);
  const after = await rest();
  const size = `${items.toLocaleString('en')} items, ${links.toLocaleString('en')} links`;
  const time = (work: () => void) => {
    const start = performance.now();
    work();
    return performance.now() - start;
  };
  const some = state.items.find((item) => item.kind === 'requirement')!;
  const row = (more: object) => ({
    ...some,
    ...more,
    projectId: 'bench',
    html: '',
    fields: {},
    exchanged: {},
    origin: 'made',
    createdAt: '',
    changedAt: '',
    changedBy: '',
  });
  const apply = (change: object) => time(() => state.apply([change] as Changes, state.seq + 1));
  const added: number[] = [];
  const reworded: number[] = [];
  const linked: number[] = [];
  const told: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    const node = state.items.length;
    added.push(apply({ entity: 'item', before: null, after: row({ id: idOf(6, node), reference: `NEW-${node}`, node, rank: 1e9 + run }) }));
    reworded.push(apply({ entity: 'item', before: some, after: row({ title: `Item ${run}`, meaningSeq: state.seq + 1 }) }));
    const ends = { fromId: state.items.find((item) => item.kind === 'testCase')!.id, toId: idOf(6, node), fromUsage: null, toUsage: null };
    linked.push(apply({ entity: 'link', before: null, after: { id: idOf(7, node), kind: 'verifies', ...ends, withdrawn: false, fromSeq: 1, toSeq: 1 } }));
    const shown = { seq: state.seq, day: state.day, life: state.life };
    keeper.noteTold(state);
    apply({ entity: 'item', before: some, after: row({ title: `Again ${run}` }) });
    const start = performance.now();
    for (let page = 0; page < 10; page++) JSON.stringify(await keeper.tellSince('bench', shown));
    told.push((performance.now() - start) / 10);
  }
  const megabytes = (after.heapUsed + after.arrayBuffers - before.heapUsed - before.arrayBuffers) / 1e6;
  return [
    { what: 'one item added, in all figures', size, runs: RUNS, median: medianOf(added), goal: goals.item },
    { what: 'one item reworded: its links suspect, its evidence stale', size, runs: RUNS, median: medianOf(reworded), goal: goals.item },
    { what: 'one link made', size, runs: RUNS, median: medianOf(linked), goal: goals.item },
    { what: 'the outline’s difference, for each of ten pages', size, runs: RUNS, median: medianOf(told), goal: goals.pages },
    { what: `the project in memory: ${megabytes.toFixed(0)} MB`, size, runs: 1, median: 0, goal: goals.heap },
  ];
}

/** How a change grows with the project. */
export async function benchGrowth(): Promise<Row[]> {
  return [
    ...(await measure(50_000, 200_000, { item: '≤ 10 ms', pages: '≤ 5 ms', heap: '' })),
    ...(await measure(500_000, 2_000_000, { item: '≤ 100 ms', pages: '', heap: '≤ 400 MB' })),
  ];
}
