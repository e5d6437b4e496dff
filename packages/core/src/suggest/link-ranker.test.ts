import { describe, expect, it } from 'vitest';
import { Calibration } from './calibration.js';
import type { RankedItem } from './candidate.js';
import { findDoubtful } from './doubtful-links.js';
import { LinkRanker } from './link-ranker.js';
import { fitLogistic, score, sigmoid } from './logistic.js';
import { tellingWords, writtenWords } from './telling-words.js';

const item = (title: string, text = '', parent = -1): RankedItem => ({ title, text, parent });

describe('words that tell something', () => {
  it('meet in one form, split where the case of a name changes, without the words that everybody uses', () => {
    expect(tellingWords('The gates shall be opened')).toEqual(tellingWords('gate opening'));
    expect(tellingWords('gateDrive motor_speed')).toEqual(tellingWords('gate drive, motor speed'));
    expect(tellingWords('It must not be the one of them')).toEqual([]);
  });

  it('are known as a text writes them', () => {
    const [form] = tellingWords('openings');
    expect(writtenWords('The Opening of 3.60 M, the openings').get(form!)).toBe('opening');
    expect(writtenWords('The Opening of 3.60 M').get('3.60 m')).toBe('3.60 M');
  });

  it('are numbers with their units, too', () => {
    expect(tellingWords('rises by 3.60 m in 5 s')).toEqual(expect.arrayContaining(['3.60 m', '5 s']));
    expect(tellingWords('rises by 3.60 m')).not.toEqual(tellingWords('rises by 3.60 mm'));
  });
});

describe('a logistic regression', () => {
  it('finds the weights that made its data', () => {
    const [rows, labels]: [number[][], number[]] = [[], []];
    for (let at = 0; at < 4000; at++) {
      const row = [((at * 37) % 100) / 50 - 1, ((at * 61) % 83) / 41 - 1];
      const chance = sigmoid(2 * row[0]! - row[1]! + 0.5);
      rows.push(row);
      labels.push(((at * 7919) % 1000) / 1000 < chance ? 1 : 0);
    }
    const [a, b, constant] = fitLogistic(rows, labels, [0, 0, 0], 0.01);
    expect(a).toBeCloseTo(2, 0);
    expect(b).toBeCloseTo(-1, 0);
    expect(constant).toBeCloseTo(0.5, 0);
  });

  it('stays with what it was told where nothing speaks against it, and holds where data are parted', () => {
    const kept = fitLogistic([[0], [0]], [1, 0], [3, 0], 1);
    expect(kept[0]).toBeCloseTo(3);
    const parted = fitLogistic([[1], [1], [0], [0]], [1, 1, 0, 0], [0, 0], 0.3);
    expect(parted.every(Number.isFinite)).toBe(true);
    expect(score(parted, [1])).toBeGreaterThan(score(parted, [0]));
  });
});

describe('how likely a score is right', () => {
  it('is what was right among those with such a score, and never less for a higher one', () => {
    const cases = Array.from({ length: 300 }, (_, at) => ({ score: at, isRight: at >= 200 ? at % 10 !== 0 : at >= 100 ? at % 2 === 0 : at % 10 === 0 }));
    const calibration = new Calibration(cases);
    expect(calibration.of(50)).toBeCloseTo(0.1, 1);
    expect(calibration.of(150)).toBeCloseTo(0.5, 1);
    expect(calibration.of(250)).toBeCloseTo(0.9, 1);
    for (let at = 1; at < 300; at++) expect(calibration.of(at)).toBeGreaterThanOrEqual(calibration.of(at - 1));
    expect(calibration.of(-1000)).toBe(calibration.of(0));
  });

  it('promises little where there were few, and nothing where there were none', () => {
    expect(new Calibration([{ score: 1, isRight: true }]).of(1)).toBeLessThanOrEqual(0.5);
    expect(new Calibration([]).of(1)).toBe(0);
  });
});

const needs = [
  item('Boats pass the lock', 'Crews want to pass within 20 min.'),
  item('Neighbours are warned', 'Sirens call before a flood.'),
  item('Levels are held'),
];
const requirements = [
  item('Warning', 'The sirens shall sound 10 min before the flood.'),
  item('Passage', 'The lock shall let a boat pass within 20 min.'),
  item('Level', 'The weir shall hold the level.'),
  item('Colour', 'Rails shall be painted.'),
];

describe('what an item may be linked with', () => {
  it('is found by words where there are no links yet, and says which', () => {
    const ranker = new LinkRanker(needs, requirements);
    const [first] = ranker.rank(0);
    expect(first).toMatchObject({ index: 1, likelihood: null });
    expect(first!.reasons[0]).toMatchObject({ sort: 'words', words: expect.arrayContaining(['20 min', 'lock', 'boat']) });
    expect(ranker.rank(1)[0]!.index).toBe(0);
    expect(ranker.rank(2)[0]!.index).toBe(2);
  });

  it('leaves out what it is linked with, what was refused, and itself', () => {
    const ranker = new LinkRanker(needs, requirements);
    ranker.know({ links: [[0, 1]] });
    expect(ranker.rank(0).map(({ index }) => index)).not.toContain(1);
    expect(ranker.rank(1, 10, (to) => to === 0).map(({ index }) => index)).not.toContain(0);
    const within = new LinkRanker(requirements, requirements);
    for (const from of requirements.keys()) expect(within.rank(from).map(({ index }) => index)).not.toContain(from);
  });

  /** Twenty sections of five items each that say nothing of use; items of a section are linked with the same target. */
  const sections = Array.from({ length: 20 }, (_, at) => item(`Part ${at}`));
  const inside = Array.from({ length: 100 }, (_, at) => item(`Item`, `Says number${(at * 7) % 13}`, Math.floor(at / 5)));
  const from = [...sections, ...inside];
  const to = Array.from({ length: 20 }, (_, at) => item(`Target`, `Says number${(at * 5) % 13}`));
  const links = inside.map((_, at) => [20 + at, (Math.floor(at / 5) * 3) % 20] as const);

  it('is learnt from the links that are there: what stands beside an item tells more here than words', () => {
    const hidden = links.filter((_, at) => at % 5 === 2);
    const rest = links.filter((_, at) => at % 5 !== 2);
    const hits = (ranker: LinkRanker) => hidden.filter(([own, other]) => ranker.rank(own, 1)[0]?.index === other).length;
    const byWords = new LinkRanker(from, to);
    const learnt = new LinkRanker(from, to);
    learnt.learn({ links: rest });
    expect(hits(byWords)).toBeLessThan(8);
    expect(hits(learnt)).toBe(20);
    const [best] = learnt.rank(hidden[0]![0], 1);
    expect(best!.reasons.map(({ sort }) => sort)).toContain('beside');
    // Four of five are right, as it says.
    expect(best!.likelihood).toBeGreaterThan(0.5);
    expect(best!.likelihood).toBeLessThan(1);
  });

  it('is the same each time', () => {
    const rank = () => {
      const ranker = new LinkRanker(from, to);
      ranker.learn({ links });
      return [20, 40, 60].map((own) => ranker.rank(own));
    };
    expect(rank()).toEqual(rank());
  });

  it('is found by what both are linked with, and by an item that is like it', () => {
    const ranker = new LinkRanker(needs, requirements);
    ranker.know({ links: [], around: { left: [[7, 8], [9], []], right: [[], [], [], [7, 8]] } });
    expect(ranker.rank(0).find(({ index }) => index === 3)!.reasons).toContainEqual({ sort: 'common', count: 2 });
    const alike = new LinkRanker([...needs, item('Boats pass', 'Crews want to pass.')], requirements);
    alike.know({ links: [[0, 3]] });
    expect(alike.rank(3).find(({ index }) => index === 3)!.reasons).toContainEqual({ sort: 'alike', like: 0 });
  });

  it('is nothing where there is nothing', () => {
    expect(new LinkRanker([item('')], []).rank(0)).toEqual([]);
    expect(new LinkRanker([item('')], requirements).rank(0).filter(({ reasons }) => reasons.length > 0)).toEqual([]);
  });
});

describe('links that are likely wrong', () => {
  const words = Array.from({ length: 40 }, (_, at) => `part${String.fromCharCode(97 + (at % 26))}${String.fromCharCode(97 + Math.floor(at / 26))}`);
  const wishes = words.map((word) => item(`Wish of ${word}`, `It concerns ${word} mostly.`));
  const checks = words.map((word) => item(`Check ${word}`, `Looks at ${word} closely.`));
  const right = words.map((_, at) => [at, at] as const);
  const ranker = new LinkRanker(wishes, checks);

  it('stand below half of what else could be linked, where others of their kind stand above most of it', () => {
    const links = [...right, [3, 30] as const];
    ranker.learn({ links });
    const standings = ranker.judge(links);
    expect(findDoubtful(standings).map(({ place }) => place)).toEqual([40]);
    for (const standing of standings.subarray(0, 40)) expect(standing).toBeGreaterThan(0.9);
    const [only] = findDoubtful(standings);
    expect(only!.standing).toBe(standings[40]);
    expect(only!.usual).toBeGreaterThan(0.9);
  });

  it('are not told where there are few links, or none of them stands out', () => {
    expect(findDoubtful([...Array.from({ length: 18 }, () => 1), 0])).toEqual([]);
    expect(findDoubtful([...Array.from({ length: 19 }, () => 1), 0])).toHaveLength(1);
    expect(findDoubtful(Array.from({ length: 40 }, (_, at) => at / 40))).toEqual([]);
  });

  it('are judged as if they were not there', () => {
    ranker.know({ links: right });
    const without = ranker.judge([[3, 30]]);
    ranker.know({ links: [...right, [3, 30]] });
    expect(ranker.judge([[3, 30]])[0]).toBeCloseTo(without[0]!, 1);
  });
});
