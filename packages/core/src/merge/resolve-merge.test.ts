import { describe, expect, it } from 'vitest';
import { below, seeded } from '../testing/random.js';
import type { MergeEntry } from './merge-versions.js';
import { buildRanks, mergeOrder, resolveEntry } from './resolve-merge.js';

const entry = (change: Partial<MergeEntry>): MergeEntry => ({
  mine: 0,
  theirs: 0,
  sort: 'changed',
  match: undefined,
  fields: [],
  linksAdded: [],
  linksRemoved: [],
  place: undefined,
  conflict: false,
  ...change,
});
const field = (name: string, verdict: 'theirs' | 'mine' | 'both' | 'conflict') => ({ field: name, base: 'b', mine: 'm', theirs: 't', verdict });

describe('resolveEntry', () => {
  it('takes what changed there only, keeps what changed here, and leaves conflicts as they stand here', () => {
    const one = entry({ fields: [field('title', 'theirs'), field('text', 'mine'), field('kind', 'both'), field('owner', 'conflict')], conflict: true });
    expect(resolveEntry(one).values).toEqual({ title: 't' });
  });

  it('follows a choice field by field', () => {
    const one = entry({
      fields: [field('title', 'theirs'), field('owner', 'conflict')],
      place: 'conflict',
      linksAdded: ['x'],
      linksRemoved: ['y'],
      conflict: true,
    });
    expect(resolveEntry(one, { title: 'mine', owner: 'theirs', place: 'theirs', links: 'mine' })).toMatchObject({
      values: { owner: 't' },
      place: true,
      linksAdded: [],
      linksRemoved: [],
    });
  });

  it('follows a choice for the whole entry, but never undoes what changed here only', () => {
    const one = entry({ fields: [field('title', 'theirs'), field('text', 'mine'), field('owner', 'conflict')], place: 'theirs', linksAdded: ['x'] });
    expect(resolveEntry(one, 'theirs')).toMatchObject({ values: { title: 't', owner: 't' }, place: true, linksAdded: ['x'] });
    expect(resolveEntry(one, 'mine')).toMatchObject({ values: {}, place: false, linksAdded: [] });
  });

  it.each<[Partial<MergeEntry>, Parameters<typeof resolveEntry>[1], Partial<ReturnType<typeof resolveEntry>>]>([
    [{ sort: 'new', mine: -1, linksAdded: ['x'] }, undefined, { create: true, linksAdded: ['x'] }],
    [{ sort: 'new', mine: -1 }, 'mine', { create: false }],
    [{ sort: 'removed', theirs: -1 }, undefined, { withdraw: true }],
    [{ sort: 'removed', theirs: -1 }, { presence: 'mine' }, { withdraw: false }],
    [{ sort: 'removed', theirs: -1, conflict: true }, undefined, { withdraw: false }],
    [{ sort: 'removed', theirs: -1, conflict: true }, 'theirs', { withdraw: true }],
    [{ sort: 'returned', conflict: true, fields: [field('text', 'theirs')] }, undefined, { restore: false, values: {} }],
    [{ sort: 'returned', conflict: true, fields: [field('text', 'theirs')] }, 'theirs', { restore: true, values: { text: 't' } }],
    [{ sort: 'returned', conflict: true, fields: [field('text', 'theirs')] }, { presence: 'theirs' }, { restore: true, values: { text: 't' } }],
    [{ sort: 'moved', place: 'theirs' }, undefined, { place: true }],
    [{ sort: 'moved', place: 'conflict', conflict: true }, undefined, { place: false }],
  ])('%j with %j', (change, choice, expected) => {
    expect(resolveEntry(entry(change), choice)).toMatchObject(expected);
  });
});

describe('mergeOrder', () => {
  it.each<[string, string, string, string, string]>([
    ['puts a new one behind its neighbour', 'a b c', 'a x b c', 'x', 'a x b c'],
    ['keeps the order made here', 'b a c', 'a x b c', 'x', 'b a x c'],
    ['puts what comes first to the front', 'a b', 'x y a b', 'x y', 'x y a b'],
    ['moves what was moved there', 'a b c', 'c a b', 'c', 'c a b'],
    ['keeps what was made here', 'a own b', 'a x b', 'x', 'a x own b'],
  ])('%s', (_, present, theirs, loose, expected) => {
    expect(mergeOrder(present.split(' '), theirs.split(' '), new Set(loose.split(' '))).join(' ')).toBe(expected);
  });
});

describe('buildRanks', () => {
  it.each([1, 2, 3])('gives ascending ranks and touches nothing it need not (seed %i)', (seed) => {
    const random = seeded(seed);
    for (let round = 0; round < 50; round++) {
      const count = 1 + below(random, 12);
      const rankOf = new Map(Array.from({ length: count }, (_, i) => [`k${i}`, i * 1024]));
      const order = [...rankOf.keys()];
      const loose = new Set<string>();
      for (let i = below(random, 5); i >= 0; i--) {
        order.splice(below(random, order.length + 1), 0, `n${i}`);
        loose.add(`n${i}`);
      }
      const ranks = buildRanks(order, rankOf, loose);
      const all = order.map((id) => ranks.get(id) ?? rankOf.get(id)!);
      expect(all).toEqual([...all].sort((a, b) => a - b));
      expect(new Set(all).size).toBe(all.length);
      expect([...ranks.keys()].sort()).toEqual([...loose].sort());
    }
  });

  it('spaces all anew when two ranks leave no room', () => {
    const ranks = buildRanks(
      ['a', 'x', 'b'],
      new Map([
        ['a', 1],
        ['b', 1],
      ]),
      new Set(['x']),
    );
    expect([...ranks]).toEqual([
      ['a', 1024],
      ['x', 2048],
      ['b', 3072],
    ]);
  });
});
