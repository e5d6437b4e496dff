import {
  buildImpact,
  buildQuestion,
  buildReach,
  buildWordDiff,
  type ConsistencyGround,
  defaultScheme,
  findInconsistencies,
  findTwins,
  foldAxis,
  gatherAlongDiagonal,
  MatrixCells,
  packEntries,
  unpackEntries,
  LiveCoverage,
  TraceGraph,
} from '@coomb/core';
import { seeded } from '@coomb/core/testing';
import { generate } from './generate.js';
import { medianOf, type Row, time } from './measure.js';

const ITEMS = 50_000;
const LINKS = 200_000;
const linkKinds = Object.fromEntries(defaultScheme.linkKinds.map((kind, index) => [kind.id, index]));

/** The pure computing: graph, coverage, reach, matrix, difference. */
export async function benchCore(): Promise<Row[]> {
  const { kinds, from, to, linkKind } = generate(ITEMS, LINKS, linkKinds);
  const columns = () => ({ nodes: ITEMS, from: from.slice(), to: to.slice(), kind: linkKind.slice() });
  const size = `${ITEMS.toLocaleString('en')} items, ${LINKS.toLocaleString('en')} links`;
  const rows: Row[] = [];
  const objects = () => {
    const links = Array.from(from, (_, i) => ({ from: from[i]!, to: to[i]!, kind: linkKind[i]! }));
    const incoming = new Map<number, { other: number; kind: number }[]>();
    for (const link of links) {
      const list = incoming.get(link.to) ?? [];
      list.push({ other: link.from, kind: link.kind });
      incoming.set(link.to, list);
    }
    return incoming;
  };
  rows.push({
    what: 'build the trace graph from columns',
    size,
    runs: 9,
    median: await time(9, () => TraceGraph.build(columns())),
    baseline: { what: 'maps of objects, one direction', median: await time(5, objects) },
    goal: '≤ 30 ms',
  });

  const graph = TraceGraph.build(columns());
  rows.push(await benchConsistency(graph, kinds, size), await benchImpact(graph, size), await benchTwins());
  const rule = defaultScheme.rules.find((one) => one.id === 'tested')!;
  const items = {
    count: ITEMS,
    kindOf: (node: number) => kinds[node]!,
    isPresent: () => true,
    isHeading: () => false,
    fieldOf: () => undefined,
    isWaived: () => false,
  };
  const question = buildQuestion(defaultScheme, rule, items);
  const incoming = objects();
  const wanted = new Set(rule.along.map((step) => linkKinds[step.linkKind]!));
  const bySets = () => {
    let met = 0;
    for (let node = 0; node < ITEMS; node++) {
      if (kinds[node] !== 'requirement') continue;
      const seen = new Set([node]);
      let frontier = [node];
      let found = false;
      for (let step = 0; step < rule.steps && !found; step++) {
        const next: number[] = [];
        for (const at of frontier)
          for (const { other, kind } of incoming.get(at) ?? [])
            if (wanted.has(kind) && !seen.has(other)) {
              seen.add(other);
              next.push(other);
              if (kinds[other] === 'testCase') found = true;
            }
        frontier = next;
      }
      if (found) met++;
    }
    return met;
  };
  const coverage = new LiveCoverage(graph, question);
  const counted = coverage.count().met;
  if (bySets() !== counted) throw new Error(`Coverage differs: ${bySets()} and ${counted}`);
  rows.push({
    what: 'coverage of everything, two steps',
    size,
    runs: 11,
    median: await time(11, () => new LiveCoverage(graph, question)),
    baseline: { what: 'a search with sets from every requirement', median: await time(5, bySets) },
    goal: '≤ 6 ms',
  });

  const random = seeded(7);
  const changes: number[] = [];
  for (let i = 0; i < 5000; i++) {
    const link = Math.floor(random() * LINKS);
    const start = performance.now();
    graph.removeLink(link);
    coverage.linkRemoved(link);
    graph.restoreLink(link);
    coverage.linkAdded(link);
    changes.push((performance.now() - start) / 2);
  }
  rows.push({
    what: 'coverage after one link changed',
    size,
    runs: 5000,
    median: medianOf(changes),
    baseline: { what: 'computed anew', median: rows[1]!.median },
    goal: '≤ 50 µs',
  });

  const steps = defaultScheme.linkKinds.flatMap((_, kind) => [{ kind, direction: 'in' as const }]);
  const reaches: number[] = [];
  for (let i = 0; i < 300; i++) {
    const root = Math.floor(random() * ITEMS);
    const start = performance.now();
    buildReach(graph, root, { steps, maxDistance: 3 });
    reaches.push(performance.now() - start);
  }
  reaches.sort((a, b) => a - b);
  rows.push({
    what: 'everything downstream within 3 links, 95th of 100',
    size,
    runs: 300,
    median: reaches[Math.floor(reaches.length * 0.95)]!,
    goal: '≤ 1 ms',
  });
  rows.push(...(await benchMatrix()));
  rows.push(await benchDifference());
  return rows;
}

/** 20,000 × 20,000 items in sections of 20, with a million links near the diagonal. */
async function benchMatrix(): Promise<Row[]> {
  const random = seeded(3);
  const [count, links] = [20_000, 1_000_000];
  const axis = { parent: Int32Array.from({ length: count }, (_, index) => (index % 20 === 0 ? -1 : index - (index % 20))) };
  const row = Int32Array.from({ length: links }, () => Math.floor(random() * count));
  const column = row.map((at) => Math.min(count - 1, Math.max(0, at + Math.floor((random() - 0.5) * 2000))));
  const entries = { row, column, mark: Uint8Array.from(row, (at) => at % 3), suspect: new Uint8Array(links) };
  const folded = new Set(Array.from({ length: count / 20 }, (_, index) => index * 20));
  const cells = MatrixCells.build(count, count, entries);
  const none = new Int32Array(links).fill(-1);
  const packed = packEntries({ ...entries, rowUse: none, columnUse: none });
  const size = '20,000 × 20,000, 1,000,000 links';
  return [
    { what: 'matrix: links put in their cells', size, runs: 7, median: await time(7, () => MatrixCells.build(count, count, entries)), goal: '' },
    {
      what: 'matrix: all sections folded, 60 lines in sight rolled up',
      ...{ size, runs: 15, goal: '≤ 10 ms' },
      median: await time(15, () => {
        const fold = cells.fold(foldAxis(axis, folded), foldAxis(axis, folded));
        for (let line = 0; line < 60; line++) fold.row(line);
      }),
    },
    {
      what: 'matrix: links packed for the way',
      size,
      runs: 7,
      median: await time(7, () => packEntries({ ...entries, rowUse: none, columnUse: none })),
      goal: '',
    },
    {
      what: 'matrix: links unpacked',
      size: `${size}, ${Math.round(packed.length / 1e5) / 10} MB`,
      runs: 7,
      median: await time(7, () => unpackEntries(packed)),
      goal: '',
    },
    { what: 'matrix: ordered along the diagonal', size, runs: 3, median: await time(3, () => gatherAlongDiagonal(count, count, row, column)), goal: '' },
  ];
}

async function benchDifference(): Promise<Row> {
  const random = seeded(5);
  const words = ['gate', 'level', 'shall', 'open', 'close', 'weir', 'within', 'the', 'of', 'control'];
  const pairs = Array.from({ length: 5000 }, () => {
    const text = Array.from({ length: 40 }, () => words[Math.floor(random() * words.length)]!);
    const other = text.map((word) => (random() < 0.1 ? words[Math.floor(random() * words.length)]! : word));
    return [text.join(' '), other.join(' ')] as const;
  });
  return {
    what: 'word-level difference',
    size: '5,000 paragraphs of 40 words',
    runs: 5,
    median: await time(5, () => pairs.forEach(([a, b]) => void buildWordDiff(a, b))),
    goal: '≤ 300 ms',
  };
}

/** Fifty thousand texts, every hundredth nearly a copy of another. */
async function benchTwins(): Promise<Row> {
  const random = seeded(7);
  const words = Array.from({ length: 6000 }, (_, at) => `word${at.toString(36)}`);
  const word = () => words[Math.floor(words.length * random() ** 3)]!;
  const texts = Array.from({ length: ITEMS }, (_, at) => ({ group: at % 4, text: Array.from({ length: 12 + Math.floor(random() * 20) }, word).join(' ') }));
  for (let at = 0; at + 4 < texts.length; at += 100) texts[at + 4] = { group: texts[at]!.group, text: `${texts[at]!.text} ${word()}` };
  const median = await time(3, () => findTwins(texts));
  return { what: 'texts that say nearly the same, exactly', size: '50,000 texts of 12 to 31 words', runs: 3, median, goal: '≤ 1.5 s' };
}

async function benchConsistency(graph: TraceGraph, kinds: readonly string[], size: string): Promise<Row> {
  const ground: ConsistencyGround = {
    scheme: defaultScheme,
    graph,
    items: kinds.map((kind, node) => ({ kind, heading: false, withdrawn: false, reference: `R-${node}`, collection: kind, parent: `${kind} ${node >> 4}` })),
    usesOf: () => undefined,
    isGone: () => false,
    sayUse: () => '',
    waiting: [],
    movedFrom: () => undefined,
    nameOfCollection: () => '',
  };
  return { what: 'every rule of consistency', size, runs: 5, median: await time(5, () => findInconsistencies(ground)) };
}

async function benchImpact(graph: TraceGraph, size: string): Promise<Row> {
  let root = 0;
  const wish = { towards: 'downstream' as const, mayEnter: () => true };
  const median = await time(25, () => buildImpact(graph, defaultScheme, { ...wish, roots: [(root += 37)] }));
  return { what: 'impact of one item downstream, with independent ways', size, runs: 25, median };
}
