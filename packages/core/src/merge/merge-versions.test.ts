import { describe, expect, it } from 'vitest';
import { below, pick, seeded } from '../testing/random.js';
import { findSteady } from './longest-order.js';
import { matchVersions } from './match-versions.js';
import { type ExchangeBase, isSame, type MergeMine, mergeVersions, type MergeTheirs } from './merge-versions.js';

interface Line {
  key?: string | null;
  title?: string;
  text?: string;
  parent?: number;
  heading?: boolean;
  priority?: string | null;
  links?: string[];
}

const theirsOf = (lines: Line[]): MergeTheirs[] =>
  lines.map(({ key = null, title = key ?? 'Untitled', text = '', parent = -1, heading = false, priority = null, links = [] }) => ({
    key,
    heading,
    title,
    words: `${title} ${text}`,
    parent,
    values: { title, text, priority },
    links,
  }));

/** Mine as it stands right after these lines were imported. */
function importedOf(lines: Line[]): MergeMine[] {
  const theirs = theirsOf(lines);
  return theirs.map((their, index) => {
    const parentId = their.parent < 0 ? null : `i${their.parent}`;
    const base: ExchangeBase = { values: { ...their.values }, links: [...their.links], parent: parentId, order: index };
    return { ...their, values: { ...their.values }, id: `i${index}`, parentId, withdrawn: false, base };
  });
}

const sorts = (mine: MergeMine[], theirs: MergeTheirs[]) =>
  mergeVersions(mine, theirs).entries.map((entry) => `${entry.mine}>${entry.theirs} ${entry.sort}${entry.conflict ? '!' : ''}`);

const three: Line[] = [
  { key: 'A', text: 'hold the level' },
  { key: 'B', text: 'sound the siren' },
  { key: 'C', text: 'close the gate' },
];

describe('mergeVersions', () => {
  it('finds nothing to do when nothing changed', () => {
    expect(sorts(importedOf(three), theirsOf(three))).toEqual(['0>0 same', '1>1 same', '2>2 same']);
  });

  it('tells new, changed, removed and moved apart', () => {
    const newer: Line[] = [
      { key: 'C', text: 'close the gate' },
      { key: 'A', text: 'hold the pool level' },
      { key: 'D', text: 'light the lamp' },
    ];
    expect(sorts(importedOf(three), theirsOf(newer))).toEqual(['2>0 moved', '0>1 changed', '-1>2 new', '1>-1 removed']);
  });

  it('calls as few moved as can be', () => {
    const lines = Array.from({ length: 9 }, (_, i) => ({ key: `K${i}` }));
    const newer = [lines[8]!, ...lines.slice(0, 8)];
    expect(mergeVersions(importedOf(lines), theirsOf(newer)).counts).toMatchObject({ moved: 1, same: 8 });
  });

  it('calls an item moved that stands below another parent', () => {
    const lines: Line[] = [
      { key: 'S', heading: true },
      { key: 'T', heading: true },
      { key: 'A', parent: 0 },
    ];
    const newer: Line[] = [lines[0]!, lines[1]!, { key: 'A', parent: 1 }];
    expect(sorts(importedOf(lines), theirsOf(newer))).toEqual(['0>0 same', '1>1 same', '2>2 moved']);
  });

  it.each<[string, Line, Record<string, string>, string, boolean]>([
    ['changed there only', { key: 'A', text: 'there' }, {}, 'theirs', false],
    ['changed here only', { key: 'A', text: 'old' }, { text: 'here' }, 'mine', false],
    ['changed to the same', { key: 'A', text: 'both' }, { text: 'both' }, 'both', false],
    ['changed to different values', { key: 'A', text: 'there' }, { text: 'here' }, 'conflict', true],
  ])('weighs a field %s', (_, newer, edits, verdict, conflict) => {
    const [mine] = importedOf([{ key: 'A', text: 'old' }]);
    Object.assign(mine!.values, edits);
    const [entry] = mergeVersions([mine!], theirsOf([newer])).entries;
    expect(entry).toMatchObject({ fields: [{ field: 'text', verdict }], conflict, sort: verdict === 'theirs' || conflict ? 'changed' : 'same' });
  });

  it('keeps fields apart: one changed there, another here, no conflict', () => {
    const [mine] = importedOf([{ key: 'A', text: 'old', priority: 'Low' }]);
    mine!.values.priority = 'High';
    const [entry] = mergeVersions([mine!], theirsOf([{ key: 'A', text: 'new', priority: 'Low' }])).entries;
    expect(entry!.fields.map((field) => [field.field, field.verdict])).toEqual([
      ['text', 'theirs'],
      ['priority', 'mine'],
    ]);
    expect(entry!.conflict).toBe(false);
  });

  it('leaves what a person withdrew alone until the source changes it', () => {
    const [mine] = importedOf([{ key: 'A', text: 'old' }]);
    mine!.withdrawn = true;
    expect(sorts([mine!], theirsOf([{ key: 'A', text: 'old' }]))).toEqual(['0>0 same']);
    expect(sorts([mine!], theirsOf([{ key: 'A', text: 'new' }]))).toEqual(['0>0 returned!']);
    expect(sorts([mine!], [])).toEqual([]);
  });

  it('asks before removing what was edited here', () => {
    const mine = importedOf([{ key: 'A', text: 'old' }]);
    mine[0]!.values.text = 'edited';
    expect(sorts(mine, [])).toEqual(['0>-1 removed!']);
  });

  it('never removes what was made here', () => {
    const [mine] = importedOf([{ key: 'A' }]);
    expect(sorts([{ ...mine!, base: null }], [])).toEqual([]);
  });

  it('asks when an item was moved on both sides to different parents, and not when to the same', () => {
    const lines: Line[] = [
      { key: 'S', heading: true },
      { key: 'T', heading: true },
      { key: 'U', heading: true },
      { key: 'A', parent: 0 },
    ];
    const newer = [...lines.slice(0, 3), { key: 'A', parent: 1 }];
    const moved = (to: number) => {
      const mine = importedOf(lines);
      mine[3] = { ...mine[3]!, parent: to, parentId: `i${to}` };
      return mergeVersions(mine, theirsOf(newer)).entries.find((entry) => entry.mine === 3)!;
    };
    expect([moved(2).place, moved(2).conflict]).toEqual(['conflict', true]);
    expect([moved(1).place, moved(1).conflict]).toEqual(['theirs', false]);
  });

  it('adds and removes links one by one, against what was exchanged', () => {
    const mine = importedOf([{ key: 'A', links: ['derives out N-1', 'derives out N-2'] }]);
    const [entry] = mergeVersions(mine, theirsOf([{ key: 'A', links: ['derives out N-2', 'derives out N-3'] }])).entries;
    expect(entry).toMatchObject({ sort: 'changed', linksAdded: ['derives out N-3'], linksRemoved: ['derives out N-1'], conflict: false });
  });

  it('compares directly with what never was exchanged', () => {
    const [mine] = importedOf([{ key: 'A', text: 'made here' }]);
    const [entry] = mergeVersions([{ ...mine!, base: null }], theirsOf([{ key: 'A', text: 'from there' }])).entries;
    expect(entry).toMatchObject({ fields: [{ field: 'text', base: undefined, verdict: 'conflict' }], conflict: true });
  });

  it.each([1, 2, 3, 4, 5, 6])('of any edits on both sides: every difference shows once, and only clashes are conflicts (seed %i)', (seed) => {
    const random = seeded(seed);
    const words = ['gate', 'level', 'siren', 'pool', 'lock', 'alarm'];
    const lines: Line[] = Array.from({ length: 40 }, (_, i) => ({
      key: `K${i}`,
      text: `${pick(random, words)} ${i}`,
      priority: pick(random, ['High', 'Low']),
    }));
    const mine = importedOf(lines);
    const newer = lines.filter(() => random() > 0.1).map((line) => ({ ...line }));
    for (let i = 0; i < 5; i++) newer.splice(below(random, newer.length), 0, { key: `N${i}`, text: 'new' });
    for (const line of newer) if (random() < 0.3) line.text = `${pick(random, words)} there`;
    for (const own of mine) {
      if (random() < 0.3) own.values.text = `${pick(random, words)} here`;
      if (random() < 0.1) own.values.priority = 'Medium';
    }
    const theirs = theirsOf(newer);
    const { entries, counts } = mergeVersions(mine, theirs);
    expect(entries.filter((entry) => entry.theirs >= 0).map((entry) => entry.theirs)).toEqual(theirs.map((_, index) => index));
    expect(new Set(entries.filter((entry) => entry.mine >= 0).map((entry) => entry.mine)).size).toBe(mine.length);
    expect(entries.length).toBe(counts.new + counts.changed + counts.moved + counts.removed + counts.returned + counts.same);
    for (const entry of entries) {
      if (entry.mine < 0 || entry.theirs < 0) continue;
      const [own, their] = [mine[entry.mine]!, theirs[entry.theirs]!];
      expect(own.key).toBe(their.key);
      for (const field of ['text', 'priority'] as const) {
        const [base, here, there] = [own.base!.values[field]!, own.values[field]!, their.values[field]!];
        const expected =
          here === base && there === base ? undefined : here === there ? 'both' : there === base ? 'mine' : here === base ? 'theirs' : 'conflict';
        expect(entry.fields.find((one) => one.field === field)?.verdict).toBe(expected);
      }
    }
  });
});

describe('matchVersions', () => {
  const reasons = (mine: Line[], theirs: Line[], chosen?: Map<number, number>) =>
    matchVersions(importedOf(mine), theirsOf(theirs), chosen).map((match) => (match ? `${match.mine} ${match.reason}` : 'new'));

  it('matches by key before all, whatever the text says', () => {
    expect(
      reasons(
        [
          { key: 'A', text: 'x y' },
          { key: 'B', text: 'z' },
        ],
        [{ key: 'b', text: 'x y' }],
      ),
    ).toEqual(['1 key']);
  });

  it('never takes items with different keys for one another', () => {
    expect(reasons([{ key: 'A', text: 'the very same words' }], [{ key: 'B', text: 'the very same words' }])).toEqual(['new']);
  });

  it('matches without keys by same text wherever it stands, then by similar text below the same parent', () => {
    const mine: Line[] = [
      { title: 'Levels', heading: true },
      { title: 'Hold', text: 'The weir shall hold the pool level within five centimetres', parent: 0 },
      { title: 'Siren', text: 'A siren shall sound before any gate moves', parent: 0 },
    ];
    const theirs: Line[] = [
      { title: 'Siren', text: 'A siren shall sound before any gate moves' },
      { title: 'Levels', heading: true },
      { title: 'Hold', text: 'The weir shall hold the pool level within three centimetres', parent: 1 },
      { title: 'Lamp', text: 'Lamps light the walkway at night', parent: 1 },
    ];
    expect(reasons(mine, theirs)).toEqual(['2 same text', '0 same text', '1 similar text', 'new']);
  });

  it('lets no similar text take what has its twin further on', () => {
    const mine: Line[] = ['main', 'spare', 'upper'].map((pump) => ({ text: `The ${pump} pump of the lower gate must limit a pressure of 430 kPa` }));
    const theirs: Line[] = ['outer', 'main', 'spare', 'upper'].map((pump) => ({ text: `The ${pump} pump of the lower gate must limit a pressure of 430 kPa` }));
    expect(reasons(mine, theirs)).toEqual(['new', '0 same text', '1 same text', '2 same text']);
  });

  it('gives each changed text the one it is most like', () => {
    const mine: Line[] = [{ text: 'close the red gate at night in winter' }, { text: 'close the red gate at noon in summer' }];
    const theirs: Line[] = [{ text: 'close the red gate at noon in early summer' }, { text: 'close the red gate at night in deep winter' }];
    expect(reasons(mine, theirs)).toEqual(['1 similar text', '0 similar text']);
  });

  it('knows an item that moved by a title of its own, though its text changed', () => {
    const title = 'Level band of the upper pool';
    const mine: Line[] = [
      { title: 'Levels', heading: true },
      { title, text: 'Hold it.', parent: 0 },
      { title: 'General', text: 'Old words.', parent: 0 },
    ];
    const theirs: Line[] = [
      { title: 'Annex', heading: true },
      { title, text: 'Wholly other words that nobody knows from before', parent: 0 },
      { title: 'General', text: 'New ones.', parent: 0 },
    ];
    expect(reasons(mine, theirs)).toEqual(['0 same items', '1 same title', 'new']);
  });

  it('knows an item that moved and changed by very similar text, and no other', () => {
    const mine: Line[] = [
      { title: 'A', heading: true },
      { text: 'The siren at the lock house shall sound for twelve seconds before gate 7 moves', parent: 0 },
      { text: 'The lamp at the lock house shall burn at night', parent: 0 },
    ];
    const theirs: Line[] = [
      { title: 'B', heading: true },
      { text: 'The siren at the lock house shall sound for fifteen seconds before gate 7 moves', parent: 0 },
      { text: 'The lamp in the car park may be dark', parent: 0 },
    ];
    expect(reasons(mine, theirs)).toEqual(['new', '1 similar text', 'new']);
  });

  it('knows a renamed section by the items in it', () => {
    const items = ['hold the level', 'sound the siren', 'light the lamp'];
    const section = (title: string, first: number): Line[] => [
      { title, heading: true },
      ...items.map((text) => ({ title: 'x', text: `${text} of ${first}`, parent: first })),
    ];
    expect(reasons([...section('Gates', 0), ...section('Locks', 4)], [...section('Weir sluices', 0), ...section('Locks', 4)])).toEqual([
      '0 same items',
      '1 same text',
      '2 same text',
      '3 same text',
      '4 same text',
      '5 same text',
      '6 same text',
      '7 same text',
    ]);
  });

  it('keeps texts that recur below their own parents', () => {
    const chapter = (title: string, parent: number): Line[] => [
      { title, heading: true },
      { title: 'General', heading: true, parent },
    ];
    const mine = [...chapter('Gates', 0), ...chapter('Locks', 2)];
    expect(reasons(mine, [...chapter('Pumps', 0), ...chapter('Gates', 2), ...chapter('Locks', 4)])).toEqual([
      'new',
      'new',
      '0 same text',
      '1 same text',
      '2 same text',
      '3 same text',
    ]);
  });

  it('keeps texts that stand many times in their order, different keys apart', () => {
    const lines = Array.from({ length: 300 }, (_, at): Line => ({ key: at === 100 ? 'K' : null, title: 'Reserved' }));
    const newer = lines.map((line, at): Line => ({ ...line, key: at === 100 ? 'L' : null }));
    const found = reasons(lines, newer);
    // Two different keys never meet: L takes the next without a key, and the K that it passed goes to the one after.
    expect(found).toEqual(lines.map((_, at) => `${at === 100 ? 101 : at === 101 ? 100 : at} same text`));
  });

  it('looks for a changed text about its place, in a list of any length', () => {
    const lines = Array.from({ length: 600 }, (_, at): Line => ({ text: `limit value number${at} of pump${at} to ${at} bar` }));
    const newer = lines.map((line, at) => (at % 5 === 0 ? { text: `${line.text} always` } : line));
    const found = reasons(lines, [{ text: 'wholly other words stand here' }, ...newer]);
    expect(found[0]).toBe('new');
    expect(found.slice(1)).toEqual(lines.map((_, at) => `${at} ${at % 5 === 0 ? 'similar' : 'same'} text`));
  });

  it('does not take a heading for an item', () => {
    expect(reasons([{ title: 'Alarm', heading: true }], [{ title: 'Alarm' }])).toEqual(['new']);
  });

  it('takes a choice over everything, and "new" as a choice', () => {
    const lines: Line[] = [{ key: 'A' }, { key: 'B' }];
    expect(reasons(lines, lines, new Map([[0, 1]]))).toEqual(['1 chosen', 'new']);
    expect(reasons(lines, lines, new Map([[1, -1]]))).toEqual(['0 key', 'new']);
  });
});

describe('findSteady', () => {
  /** Tries every subset. */
  function longest(order: number[]): number {
    let best = 0;
    for (let mask = 0; mask < 1 << order.length; mask++) {
      const kept = order.filter((_, index) => mask & (1 << index));
      if (kept.every((value, index) => index === 0 || kept[index - 1]! < value)) best = Math.max(best, kept.length);
    }
    return best;
  }

  it.each([1, 2, 3, 4, 5])('keeps as many as can be kept (seed %i)', (seed) => {
    const random = seeded(seed);
    for (let round = 0; round < 40; round++) {
      const order = Array.from({ length: below(random, 10) }, (_, i) => i).sort(() => random() - 0.5);
      const steady = findSteady(order);
      const kept = order.filter((_, index) => steady[index]);
      expect(kept).toEqual([...kept].sort((a, b) => a - b));
      expect(kept).toHaveLength(longest(order));
    }
  });
});

describe('isSame', () => {
  it.each<[Parameters<typeof isSame>[0], Parameters<typeof isSame>[1], boolean]>([
    ['a', 'a', true],
    ['a', 'b', false],
    [null, '', true],
    [null, [], true],
    [['a', 'b'], ['a', 'b'], true],
    [['a', 'b'], ['b', 'a'], false],
    [false, null, false],
    [0, null, false],
  ])('%j and %j: %s', (a, b, same) => {
    expect(isSame(a, b)).toBe(same);
  });
});
