import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';
import type { getProject, ItemSheet, LinkColumnsReply, OutlineReply, ReplyOf } from '@coomb/contract';
import { findDoubtful, findTwins, LinkRanker, type RankedItem } from '@coomb/core';
import { below, seeded } from '@coomb/core/testing';
import { type Row, time } from './measure.js';
import { TextRanking } from './plain-ranking.js';

interface Known {
  name: string;
  left: RankedItem[];
  right: RankedItem[];
  links: [number, number][];
}

/** Share of the links that are hidden, and how often others are. */
const HIDDEN = 0.3;
const RUNS = 5;
const LIKELY = 0.7;

/** How well hidden links are found by what is learnt from the others, against plain words and against chance; and how long that takes. */
export async function benchSuggestions(): Promise<Row[]> {
  const shipped = await readDemo();
  const generated = [makeKnown('parallel', 300, 240), makeKnown('hubs', 300, 240), makeKnown('words', 300, 240)];
  return [...[...shipped, ...generated].flatMap(judge), ...[...shipped, ...generated, makeLarge(2_000)].map(judgeWrong), ...(await measureSpeed())];
}

class Sum {
  private precision = 0;
  private at5 = 0;
  private at10 = 0;
  private items = 0;

  add(order: readonly number[], wanted: ReadonlySet<number>): void {
    let [hits, precision] = [0, 0];
    order.forEach((index, place) => {
      if (!wanted.has(index)) return;
      precision += ++hits / (place + 1);
      if (place < 5) this.at5 += 1 / wanted.size;
      if (place < 10) this.at10 += 1 / wanted.size;
    });
    this.precision += precision / wanted.size;
    this.items++;
  }

  get mean(): number {
    return this.precision / this.items;
  }

  toString(): string {
    return [this.precision, this.at5, this.at10].map((sum) => (sum / this.items).toFixed(3)).join(' / ');
  }
}

function judge({ name, left, right, links }: Known): Row[] {
  const sums = { learnt: new Sum(), 'before it learnt': new Sum(), 'plain words (BM25)': new Sum(), chance: new Sum() };
  const likely = { told: 0, right: 0 };
  const plain = new TextRanking(right.map(({ title, text }) => `${title} ${text}`));
  for (let run = 0; run < RUNS; run++) {
    const random = seeded(run + 1);
    const hidden = new Map<number, Set<number>>();
    const rest: [number, number][] = [];
    for (const link of links)
      if (random() < HIDDEN) hidden.set(link[0], (hidden.get(link[0]) ?? new Set()).add(link[1]));
      else rest.push(link);
    const there = new Set(rest.map((link) => link.join()));
    const learnt = new LinkRanker(left, right);
    learnt.learn({ links: rest });
    const fresh = new LinkRanker(left, right);
    for (const [from, wanted] of hidden) {
      const isOpen = (to: number) => !there.has(`${from},${to}`);
      const { title, text } = left[from]!;
      const order = (list: readonly { index: number }[]) => list.map(({ index }) => index).filter(isOpen);
      const ranked = learnt.rank(from, right.length);
      sums.learnt.add(order(ranked), wanted);
      sums['before it learnt'].add(order(fresh.rank(from, right.length)), wanted);
      sums['plain words (BM25)'].add(order(plain.rank(`${title} ${text}`, right.length)), wanted);
      const rolls = right.map((_, index) => ({ index, roll: random() }));
      sums.chance.add(order(rolls.toSorted((a, b) => a.roll - b.roll)), wanted);
      for (const { index, likelihood } of ranked.slice(0, 10))
        if (likelihood !== null && likelihood >= LIKELY) {
          likely.told++;
          if (wanted.has(index)) likely.right++;
        }
    }
  }
  const words = sums['plain words (BM25)'].mean;
  const size = `${left.length} towards ${right.length} items, ${links.length} links, ${HIDDEN * 100} % hidden`;
  const rows = Object.entries(sums).map(([way, sum]): Row => {
    const isLearnt = way === 'learnt';
    const told = likely.told === 0 ? 'none told likely' : `of ${likely.told} told likely ${Math.round((100 * likely.right) / likely.told)} % right`;
    return {
      ...{ what: `hidden links found, ${name}: ${way}${isLearnt ? `; ${told}` : ''}`, size, runs: RUNS, median: 0, shown: String(sum) },
      ...(isLearnt && { compared: `plain words (BM25): ${(sum.mean / words).toFixed(2)} ×`, goal: '≥ 1.25 × plain words; ≥ 70 % of those told likely right' }),
    };
  });
  return rows;
}

/** Of the links, so many that join what does not belong together are added. */
const WRONG = 0.05;

/** Links that are told likely wrong, where some were added that are. */
function judgeWrong(known: Known): Row {
  const sums = { told: 0, right: 0, wrong: 0, toldWithout: 0 };
  const isTurned = known.left.length > known.right.length;
  const [left, right] = isTurned ? [known.right, known.left] : [known.left, known.right];
  const links = known.links.map(([a, b]): [number, number] => (isTurned ? [b, a] : [a, b]));
  const ranker = new LinkRanker(left, right);
  const tell = (of: readonly [number, number][]) => {
    ranker.learn({ links: of });
    return findDoubtful(ranker.judge(of)).map(({ place }) => place);
  };
  sums.toldWithout = tell(links).length;
  for (let run = 0; run < RUNS; run++) {
    const random = seeded(run + 1);
    const there = new Set(links.map((link) => link.join()));
    const wrong: [number, number][] = [];
    while (wrong.length < WRONG * links.length) {
      const link: [number, number] = [links[below(random, links.length)]![0], links[below(random, links.length)]![1]];
      if (!there.has(link.join())) wrong.push(link);
      there.add(link.join());
    }
    const told = tell([...links, ...wrong]);
    sums.told += told.length;
    sums.right += told.filter((place) => place >= links.length).length;
    sums.wrong += wrong.length;
  }
  return {
    what: `links told likely wrong, ${known.name}`,
    size: `${links.length} links and ${WRONG * 100} % wrong ones`,
    ...{ runs: RUNS, median: 0 },
    shown: `${sums.right} of ${sums.wrong} found; ${sums.told - sums.right} of ${sums.told} told were right; ${sums.toldWithout} told where none was added`,
  };
}

const SYLLABLES = 'ka lo mi tu ren sol dar vin pel gor has bri'.split(' ');
const wordOf = (number: number) => `${SYLLABLES[number % 12]}${SYLLABLES[Math.floor(number / 12) % 12]}${SYLLABLES[Math.floor(number / 144) % 12]}n`;

/**
 * Items of ten words, of which those that are linked share some; with outlines that run in parallel, with few that most are linked with, or with neither.
 */
function makeKnown(sort: 'parallel' | 'hubs' | 'words', lefts: number, rights: number): Known {
  const random = seeded(7);
  const sections = Math.max(30, Math.floor(lefts / 50));
  const say = (count: number) => Array.from({ length: count }, () => wordOf(below(random, sort === 'words' ? 500 : 150)));
  const list = (count: number): RankedItem[] => [
    ...Array.from({ length: sections }, (_, at) => ({ title: `Section ${at}`, text: '', parent: -1 })),
    ...Array.from({ length: count }, (_, at) => ({ title: '', text: '', parent: Math.floor((at * sections) / count) })),
  ];
  const [left, right] = [list(lefts), list(rights)];
  const words = right.map(() => say(10));
  right.forEach((item, at) => {
    if (item.parent >= 0) Object.assign(item, { title: words[at]!.slice(0, 3).join(' '), text: words[at]!.slice(3).join(' ') });
  });
  const inside = new Map<number, number[]>();
  right.forEach(({ parent }, at) => {
    if (parent >= 0) inside.set(parent, [...(inside.get(parent) ?? []), at]);
  });
  const links: [number, number][] = [];
  for (let from = sections; from < left.length; from++) {
    const pick = () => {
      if (sort === 'hubs' && random() < 0.8) return sections + 5 * below(random, Math.floor(rights / 5));
      if (sort === 'parallel' && random() < 0.85) {
        const there = inside.get(left[from]!.parent)!;
        return there[below(random, there.length)]!;
      }
      return sections + below(random, rights);
    };
    const targets = [...new Set(Array.from({ length: 1 + below(random, 2) }, pick))];
    const shared = sort === 'words' ? 2 : 1;
    const said = targets.flatMap((to) => Array.from({ length: shared }, () => words[to]![below(random, 10)]!));
    const own = [...said, ...say(10 - Math.min(8, said.length))];
    Object.assign(left[from]!, { title: own.slice(-3).join(' '), text: own.slice(0, -3).join(' ') });
    for (const to of targets) links.push([from, to]);
  }
  const name = { parallel: 'made up, outlines in parallel', hubs: 'made up, most to few', words: 'made up, by words' }[sort];
  return { name, left, right, links };
}

/** Words of such a rank are said this often in proportion (Zipf and Mandelbrot), as in what people write. */
const WORDS = 8_000;
const LENGTH = 20;
const RANK_SHIFT = 2.7;
const ITEMS_PER_SECTION = 50;
const SHARED = 3;

/** Two outlines in parallel whose items say twenty words as people do; seven of ten links stay within the same section, and the linked share words. */
function makeLarge(count: number): Known {
  const random = seeded(11);
  const sections = Math.floor(count / ITEMS_PER_SECTION);
  const often = new Float64Array(WORDS);
  let sum = 0;
  for (let rank = 0; rank < WORDS; rank++) often[rank] = sum += 1 / (rank + RANK_SHIFT);
  const sayOne = () => {
    const roll = random() * sum;
    let [low, high] = [0, WORDS - 1];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (often[middle]! < roll) low = middle + 1;
      else high = middle;
    }
    return `${wordOf(low)}${SYLLABLES[Math.floor(low / 1728)]}`;
  };
  const say = (words: number) => Array.from({ length: words }, sayOne);
  const list = (): RankedItem[] => [
    ...Array.from({ length: sections }, () => ({ title: say(3).join(' '), text: '', parent: -1 })),
    ...Array.from({ length: count - sections }, (_, at) => ({ title: '', text: '', parent: Math.floor((at * sections) / (count - sections)) })),
  ];
  const [left, right] = [list(), list()];
  const write = (item: RankedItem, words: readonly string[]) => Object.assign(item, { title: words.slice(0, 4).join(' '), text: words.slice(4).join(' ') });
  const words = right.map(() => say(LENGTH));
  for (let to = sections; to < count; to++) write(right[to]!, words[to]!);
  const links: [number, number][] = [];
  for (let from = sections; from < count; from++) {
    const pick = () => {
      const inside = Math.floor((left[from]!.parent * (count - sections)) / sections) + below(random, ITEMS_PER_SECTION - 1);
      return sections + (random() < 0.7 ? Math.min(inside, count - sections - 1) : below(random, count - sections));
    };
    const targets = new Set(Array.from({ length: 1 + below(random, 2) }, pick));
    const said = [...targets].flatMap((to) => Array.from({ length: SHARED }, () => words[to]![below(random, LENGTH)]!));
    write(left[from]!, [...say(LENGTH - said.length), ...said]);
    for (const to of targets) links.push([from, to]);
  }
  return { name: 'made up, words as people say them', left, right, links };
}

async function measureSpeed(): Promise<Row[]> {
  const rows: Row[] = [];
  const some = makeLarge(5_000);
  const ranker = new LinkRanker(some.left, some.right);
  ranker.learn({ links: some.links });
  rows.push({
    what: 'ten candidates with their reasons for each of 5,000 items among 5,000',
    size: `${some.links.length.toLocaleString('en')} links, texts of ${LENGTH} words`,
    runs: 5,
    median: await time(5, () => {
      for (let from = 0; from < some.left.length; from++) ranker.rank(from, 10);
    }),
    goal: '≤ 500 ms',
  });
  const many = makeLarge(50_000);
  const large = new LinkRanker(many.left, many.right);
  const size = `${many.links.length.toLocaleString('en')} links between 50,000 and 50,000 items`;
  rows.push({ what: 'learn from links', size, runs: 5, median: await time(5, () => large.learn({ links: many.links })), goal: '≤ 2 s' });
  let from = 100;
  rows.push({
    what: 'ten candidates with their reasons for one item',
    size,
    runs: 9,
    median: await time(9, () => large.rank((from = (from + 7919) % 50_000), 10)),
    goal: '≤ 20 ms',
  });
  const texts = many.right.map(({ title, text }, at) => ({
    group: 0,
    text: at % 10 === 3 ? `${many.right[at - 1]!.title} ${many.right[at - 1]!.text} more` : `${title} ${text}`,
  }));
  rows.push({
    what: 'near-twins of all texts, exactly',
    size: '50,000 texts of 20 words, every tenth a twin',
    runs: 5,
    median: await time(5, () => findTwins(texts)),
    goal: '≤ 1.5 s',
  });
  return rows;
}

const root = fileURLToPath(new URL('../..', import.meta.url));

/** The links of the demo between its largest collections, as they stand. */
async function readDemo(): Promise<Known[]> {
  const folder = mkdtempSync(join(tmpdir(), 'coomb-suggest-'));
  const demo = spawn(process.execPath, ['scripts/demo.mjs', '--port', '4392', '--data', join(folder, 'data')], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  try {
    for await (const line of createInterface(demo.stdout)) if (line.includes('ready at')) break;
    const get = async <Reply>(path: string) => (await fetch(`http://127.0.0.1:4392/api/projects${path}`)).json() as Promise<Reply>;
    const [first] = await get<{ id: string }[]>('');
    const { id } = first!;
    const [project, outline, links] = await Promise.all([
      get<ReplyOf<typeof getProject>>(`/${id}`),
      get<OutlineReply>(`/${id}/outline`),
      get<LinkColumnsReply>(`/${id}/links`),
    ]);
    const read = async (name: string) => {
      const at = project.collections.findIndex((one) => one.name === name);
      const rows = outline.id.flatMap((_, row) => (outline.collection[row] === at ? [row] : []));
      const place = new Map(rows.map((row, index) => [row, index]));
      const items = await Promise.all(
        rows.map(async (row): Promise<RankedItem> => {
          const { title, html } = await get<ItemSheet>(`/${id}/items/${outline.id[row]}`);
          return { title, text: html.replace(/<[^>]+>/g, ' '), parent: place.get(outline.parent[row]!) ?? -1 };
        }),
      );
      return { items, at: new Map(rows.map((row, index) => [outline.node[row]!, index])) };
    };
    const sides = await Promise.all(['Stakeholder needs', 'System requirements', 'Larkbeck model', 'Test cases'].map(read));
    const between = (name: string, a: number, b: number): Known => {
      const [left, right] = [sides[a]!, sides[b]!];
      const found = links.from.flatMap((from, link): [number, number][] => {
        const [own, other] = [left.at.get(from), right.at.get(links.to[link]!)];
        return own === undefined || other === undefined ? [] : [[own, other]];
      });
      return { name: `the demo, ${name}`, left: left.items, right: right.items, links: [...new Map(found.map((link) => [link.join(), link])).values()] };
    };
    return [between('requirements to needs', 1, 0), between('model to requirements', 2, 1), between('tests to requirements', 3, 1)];
  } finally {
    demo.kill('SIGTERM');
    await once(demo, 'exit');
    rmSync(folder, { recursive: true, force: true });
  }
}
