import { describe, expect, it } from 'vitest';
import { seeded } from '../testing/random.js';
import { type ColourKey, colourerOf, contrastOf, inkOn, proposeFills } from './colour-key.js';
import type { RegisterGround } from './shows/show.js';
import { defaultScheme } from '../scheme/starters/index.js';

const fields = [{ priority: 'High' }, { priority: 'low' }, {}, { methods: ['Test', 'Analysis'] }];
const ground = {
  scheme: defaultScheme,
  items: fields.map((_, at) => ({ kind: 'requirement', heading: false, withdrawn: false, reference: `SYS-${at}`, title: 'x', collection: 'c', parent: -1 })),
  fieldsOf: (node: number) => fields[node],
  changedAt: (node: number) => Date.UTC(2026, 10, 1 + 10 * node),
} as unknown as RegisterGround;
const entries = (...values: string[]) => values.map((value, at) => ({ value, fill: proposeFills(9)[at]! }));
const colour = (key: ColourKey) => fields.map((_, node) => colourerOf(ground, key)!(node).entry);

describe('a colour key', () => {
  it('colours by values, whatever their case; nothing has an entry of its own, and what has none is told', () => {
    const key = { shown: { sort: 'field', of: 'priority' }, ranges: false, entries: entries('High', 'Low') };
    expect(colour(key)).toEqual([0, 1, -1, -1]);
    expect(colour({ ...key, entries: entries('Low', '') })).toEqual([-1, 0, 1, 1]);
    expect(colourerOf(ground, key)!(0).value).toBe('High');
    expect(colourerOf(ground, { ...key, entries: [] })!(1)).toEqual({ entry: -1, value: 'low' });
    expect(colourerOf(ground, { ...key, shown: { sort: 'field', of: 'nowhere' } })).toBeUndefined();
  });

  it('colours by ranges of days, the last of which may have no end', () => {
    const key = { shown: { sort: 'changedAt' }, ranges: true, entries: entries('2026-11-01', '2026-11-15', '') };
    expect(colour(key)).toEqual([0, 1, 2, 2]);
    expect(colour({ ...key, entries: entries('2026-11-11') })).toEqual([0, 0, -1, -1]);
  });

  it('has an ink for every fill that can be read on it', () => {
    const random = seeded(3);
    for (let at = 0; at < 2000; at++) {
      const fill = `#${Math.floor(random() * 0x1000000)
        .toString(16)
        .padStart(6, '0')}`;
      expect(contrastOf(fill, inkOn(fill))).toBeGreaterThanOrEqual(4.5);
    }
    expect(contrastOf('#000000', '#ffffff')).toBeCloseTo(21);
    expect(contrastOf('#777777', '#777777')).toBe(1);
  });

  it('is proposed fills that differ', () => {
    expect(new Set(proposeFills(16)).size).toBe(16);
    for (const fill of proposeFills(24)) expect(fill).toMatch(/^#[0-9a-f]{6}$/);
  });
});
