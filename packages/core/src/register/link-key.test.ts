import { describe, expect, it } from 'vitest';
import type { Scheme } from '../scheme/scheme.js';
import { defaultScheme } from '../scheme/starters/index.js';
import { dashOf, glyphNames, glyphs } from './coat.js';
import type { ColourKey } from './colour-key.js';
import { findLinkOffer, linkColourerOf, linkOffers } from './link-key.js';

const scheme: Scheme = {
  ...defaultScheme,
  linkKinds: defaultScheme.linkKinds.map((kind, at) =>
    at === 0
      ? {
          ...kind,
          fields: [
            { id: 'strength', label: 'Strength', type: 'choice', options: ['weak', 'strong'] },
            { id: 'share', label: 'Share', type: 'number' },
          ] as never,
        }
      : kind,
  ),
};
const told = (more: object = {}) => ({ kind: 0, suspect: false, fields: {}, ...more });
const key = (shown: ColourKey['shown'], ...values: string[]): ColourKey => ({
  about: 'links',
  shown,
  ranges: false,
  entries: values.map((value) => ({ value, fill: '#0072b2' })),
});

describe('a colour key of links', () => {
  it('colours by kind, by standing and by what a field of links says; what has no entry is told', () => {
    const [first, second] = scheme.linkKinds;
    const byKind = linkColourerOf(scheme, key({ sort: 'linkKind' }, first!.phrase))!;
    expect([byKind(told()), byKind(told({ kind: 1 }))]).toEqual([
      { entry: 0, value: first!.phrase },
      { entry: -1, value: second!.phrase },
    ]);
    const byStanding = linkColourerOf(scheme, key({ sort: 'linkStanding' }, 'confirmed', 'suspect'))!;
    expect([byStanding(told()).entry, byStanding(told({ suspect: true })).entry]).toEqual([0, 1]);
    const byField = linkColourerOf(scheme, key({ sort: 'linkField', of: 'strength' }, 'Strong', ''))!;
    expect([byField(told({ fields: { strength: 'strong' } })).entry, byField(told()).entry, byField(told({ fields: { strength: 'weak' } }))]).toEqual([
      0,
      1,
      { entry: -1, value: 'weak' },
    ]);
  });

  it('colours by ranges of numbers, and is nothing where what it asks for is not in the project', () => {
    const byShare = linkColourerOf(scheme, { ...key({ sort: 'linkField', of: 'share' }, '10', '50', ''), ranges: true })!;
    const entries = [5, 10, 11, 90].map((share) => byShare(told({ fields: { share } })).entry);
    expect(entries).toEqual([0, 0, 1, 2]);
    expect(linkColourerOf(defaultScheme, key({ sort: 'linkField', of: 'share' }))).toBeUndefined();
    expect(linkColourerOf(scheme, key({ sort: 'title' }))).toBeUndefined();
  });

  it('is offered with the values that there are', () => {
    expect(findLinkOffer(scheme, { sort: 'linkField', of: 'strength' })!.values).toEqual(['weak', 'strong']);
    expect(linkOffers(defaultScheme).map(({ sort }) => sort)).toEqual(expect.arrayContaining(['linkKind', 'linkStanding']));
  });
});

describe('a coat', () => {
  it('has signs that differ, and dashes that do', () => {
    expect(new Set(Object.values(glyphs)).size).toBe(glyphNames.length);
    expect([dashOf(undefined), dashOf('solid'), dashOf('dashed'), dashOf('dotted')]).toEqual([[], [], [5, 4], [1.5, 3]]);
  });
});
