import { describe, expect, it } from 'vitest';
import { comparedEntry } from '../../../testing/compared-entry';
import { countDifferences, differencesOf, differsIn, readPartWish, writePartWish } from './differences';

const field = (label: string, verdict: 'theirs' | 'mine' | 'both' | 'conflict' = 'theirs') => ({
  field: label.toLowerCase(),
  label,
  base: '',
  mine: '',
  theirs: 't',
  verdict,
});
const moved = { place: { from: 'a', to: 'b', conflict: false } };

describe('what entries differ in', () => {
  it('is what the newer version has otherwise, not what was edited here', () => {
    expect(
      differencesOf(comparedEntry({ fields: [field('Text'), field('Owner', 'mine'), field('Clause', 'conflict')], ...moved, linksRemoved: ['x'] })),
    ).toEqual(['Text', 'Clause', 'Place', 'Links']);
    expect(differencesOf(comparedEntry({ sort: 'new', linksAdded: ['x'] }))).toEqual([]);
  });

  it('is counted, the most frequent first, with those that differ in nothing else', () => {
    const entries = [
      comparedEntry({ fields: [field('Text'), field('Clause')] }),
      comparedEntry({ fields: [field('Clause')] }),
      comparedEntry({ fields: [field('Clause')] }),
      comparedEntry(moved),
    ];
    expect(countDifferences(entries)).toEqual([
      { part: 'Clause', count: 3, alone: 2 },
      { part: 'Text', count: 1, alone: 0 },
      { part: 'Place', count: 1, alone: 1 },
    ]);
    expect(entries.map((one) => differsIn(one, { part: 'Clause', only: true }))).toEqual([false, true, true, false]);
    expect(entries.map((one) => differsIn(one, { part: 'Clause', only: false }))).toEqual([true, true, true, false]);
  });

  it('stands in the address and is read back', () => {
    for (const wish of [
      { part: 'Text', only: false },
      { part: 'Stands alone', only: true },
    ])
      expect(readPartWish(writePartWish(wish))).toEqual(wish);
  });
});
