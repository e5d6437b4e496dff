import type { AffectedItem } from '@coomb/contract';
import { verificationStates } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { buildImpactRows, litRows, sayWay } from './impact-rows';

const affected = (way: string): AffectedItem => {
  const [from, ...steps] = way.split('>');
  return {
    item: { reference: steps.at(-1)! } as AffectedItem['item'],
    distance: steps.length,
    paths: 1,
    from: from!,
    way: steps.map((reference) => ({ phrase: 'leads to', reference, suspect: false, usage: null })),
  };
};
const side = (...ways: string[]) => ({ total: ways.length, items: ways.map(affected) });
const impact = {
  roots: [],
  stale: [],
  suspect: 0,
  already: 0,
  downstream: side('R>A', 'R>B', 'R>A>C', 'R>B>D', 'R>A>C>E'),
  upstream: side('R>U'),
};
const say = (shape: 'list' | 'tree') =>
  buildImpactRows(impact, shape).map((row) =>
    'head' in row ? `${row.head} ${row.count}` : 'affected' in row ? `${' '.repeat(row.depth)}${row.affected.item.reference}` : row.stale.item.reference,
  );

describe('rows of an impact', () => {
  it('are the nearest first, either side apart', () => {
    expect(say('list')).toEqual(['Downstream: what rests on it 5', 'A', 'B', 'C', 'D', 'E', 'Upstream: what it rests on 1', 'U']);
  });

  it('are a tree, each below the one that leads to it', () => {
    expect(say('tree')).toEqual(['Downstream: what rests on it 5', 'A', ' C', '  E', 'B', ' D', 'Upstream: what it rests on 1', 'U']);
  });

  it('say the way in words', () => {
    expect(sayWay(affected('R>A>C'))).toBe('R → leads to A → leads to C');
  });

  it('light the rows of the section that are there: what changes, what it touches, and what would be in another state', () => {
    const at = (id: string) => ({ item: { id } as AffectedItem['item'] });
    const reached = (id: string, distance: number) => ({ ...affected('R>A'), ...at(id), distance });
    const { roots, traced, becomes } = litRows(
      {
        ...impact,
        roots: [{ id: 'r' } as AffectedItem['item']],
        stale: [
          { ...at('s'), becomes: 'stale' },
          { ...at('a'), becomes: 'stale' },
        ],
        downstream: { total: 2, items: [reached('a', 1), reached('gone', 2)] },
        upstream: { total: 1, items: [reached('u', 3)] },
      },
      new Map(['r', 'a', 'u', 's'].map((id, row) => [id, row])),
    );
    expect([...roots]).toEqual([0]);
    expect(Object.fromEntries(traced)).toEqual({ 1: 1, 2: 3, 3: 0 });
    expect([...becomes.keys()].toSorted()).toEqual([1, 3]);
    expect(verificationStates[becomes.get(3)!]).toBe('stale');
  });
});
