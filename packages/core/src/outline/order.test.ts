import { describe, expect, it } from 'vitest';
import { below, seeded } from '../testing/random.js';
import { buildOutline, buildRankBetween, isWithin, type OutlineRow } from './order.js';
import { buildReference, compareReferences, findNumber } from './reference.js';

const row = (id: string, parentId: string | null, rank: number): OutlineRow => ({ id, parentId, rank });
const show = (rows: OutlineRow[]) => buildOutline(rows).map(({ row: one, depth }) => `${'-'.repeat(depth)}${one.id}`);

describe('buildOutline', () => {
  it('puts rows in reading order by rank, children below parents', () => {
    expect(show([row('c', 'a', 2), row('b', 'a', 1), row('d', null, 2), row('a', null, 1)])).toEqual(['a', '-b', '-c', 'd']);
  });

  it('loses nothing: rows whose parent is missing stand at the top', () => {
    expect(show([row('a', 'gone', 1), row('b', null, 2)])).toEqual(['a', 'b']);
  });

  it('loses nothing: rows in a ring stand at the end', () => {
    expect(show([row('a', 'b', 1), row('b', 'a', 1), row('c', null, 1)])).toEqual(['c', 'a', '-b']);
  });

  it('keeps equal ranks in the order of their ids', () => {
    expect(show([row('b', null, 1), row('a', null, 1)])).toEqual(['a', 'b']);
  });

  it('holds ten thousand rows, each once, parents first', () => {
    const random = seeded(7);
    const rows = Array.from({ length: 10_000 }, (_, index) => row(`i${index}`, index && random() < 0.9 ? `i${below(random, index)}` : null, random()));
    const placed = buildOutline(rows);
    const position = new Map(placed.map(({ row: one }, index) => [one.id, index]));
    expect(position.size).toBe(10_000);
    for (const one of rows) if (one.parentId) expect(position.get(one.parentId)!).toBeLessThan(position.get(one.id)!);
  });
});

describe('buildRankBetween', () => {
  it('finds room before, after and between', () => {
    expect(buildRankBetween(undefined, undefined)).toBe(1024);
    expect(buildRankBetween(undefined, 10)).toBeLessThan(10);
    expect(buildRankBetween(10, undefined)).toBeGreaterThan(10);
    expect(buildRankBetween(1, 2)).toBe(1.5);
  });

  it('says when there is no room left', () => {
    let high = 2;
    let times = 0;
    for (let rank = buildRankBetween(1, high); rank !== undefined; rank = buildRankBetween(1, high)) {
      high = rank;
      times++;
    }
    expect(times).toBeGreaterThan(40);
    expect(times).toBeLessThan(60);
  });
});

describe('isWithin', () => {
  const parents: Record<string, string | null> = { a: null, b: 'a', c: 'b', x: 'y', y: 'x' };
  const parentOf = (id: string) => parents[id] ?? null;
  it('knows what stands at or below an item', () => {
    expect(isWithin(parentOf, 'c', 'a')).toBe(true);
    expect(isWithin(parentOf, 'a', 'a')).toBe(true);
    expect(isWithin(parentOf, 'a', 'c')).toBe(false);
  });
  it('comes back from a ring', () => {
    expect(isWithin(parentOf, 'x', 'a')).toBe(false);
  });
});

describe('references', () => {
  it('line up with three digits, and grow beyond', () => {
    expect([buildReference('SYS', 7), buildReference('SYS', 1234)]).toEqual(['SYS-007', 'SYS-1234']);
  });
  it('are read back', () => {
    expect([findNumber('SYS', 'sys-042'), findNumber('SYS', 'SYSTEM-042'), findNumber('SYS', 'SYS-x')]).toEqual([42, undefined, undefined]);
  });
  it('sort as people count', () => {
    expect(['SYS-10', 'SYS-9', 'NEED-2'].sort(compareReferences)).toEqual(['NEED-2', 'SYS-9', 'SYS-10']);
  });
});
