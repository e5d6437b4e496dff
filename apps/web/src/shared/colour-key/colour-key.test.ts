import { defaultScheme } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { addressOfEntry } from './address-of-entry';
import { coatsOfLinks } from './fills';

const entry = (value: string) => ({ value, fill: '#0072b2' });
const conditionsAt = (address: string | undefined) =>
  (JSON.parse(new URLSearchParams(address!.split('?')[1]).get('what')!) as { conditions: { test: string; values: string[] }[] }).conditions.map(
    ({ test, values }) => `${test} ${values.join()}`,
  );

describe('what an entry of a colour key colours', () => {
  it('is listed: by its value, by what is missing, by the range between two bounds', () => {
    const values = { shown: { sort: 'field', of: 'priority' }, ranges: false, entries: [entry('High'), entry('')] };
    expect([0, 1].map((at) => conditionsAt(addressOfEntry(defaultScheme, values, at)))).toEqual([['is High'], ['missing ']]);
    const ranges = { shown: { sort: 'links' }, ranges: true, entries: [entry('2'), entry('10'), entry('')] };
    expect([0, 1, 2].map((at) => conditionsAt(addressOfEntry(defaultScheme, ranges, at)))).toEqual([['atMost 2'], ['above 2', 'atMost 10'], ['above 10']]);
    expect(addressOfEntry(defaultScheme, { ...values, shown: { sort: 'field', of: 'nowhere' } }, 0)).toBeUndefined();
  });

  it('is listed among all links, where the list asks for the same', () => {
    const [kind] = defaultScheme.linkKinds;
    const links = { about: 'links' as const, ranges: false, entries: [entry(kind!.phrase.toUpperCase()), entry('suspect')] };
    expect(addressOfEntry(defaultScheme, { ...links, shown: { sort: 'linkKind' } }, 0)).toBe(`link/all?kind=${kind!.id}`);
    expect(addressOfEntry(defaultScheme, { ...links, shown: { sort: 'linkStanding' } }, 1)).toBe('link/all?state=suspect');
    expect(addressOfEntry(defaultScheme, { ...links, shown: { sort: 'linkStanding' } }, 0)).toBeUndefined();
  });
});

describe('coats of links', () => {
  it('are found by both ends and the kind, or of any kind; the other way round is another link', () => {
    const entries = ['#111111', '#222222'].map((fill) => ({ value: fill, label: fill, count: 1, fill }));
    const coats = coatsOfLinks({ entries, links: { from: [0, 0, 7], to: [3, 3, 1], kind: [2, 5, 2], entry: [0, 1, 1] } });
    expect([coats(0, 3, 2), coats(0, 3, 5), coats(0, 3), coats(7, 1)].map((coat) => coat?.fill)).toEqual(['#111111', '#222222', '#111111', '#222222']);
    expect([coats(3, 0), coats(0, 3, 9), coats(0, 900), coats(1, 7)]).toEqual([undefined, undefined, undefined, undefined]);
  });
});
