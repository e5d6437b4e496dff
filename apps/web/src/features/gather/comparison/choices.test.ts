import type { ComparedEntry } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { comparedEntry } from '../../../testing/compared-entry';
import { choose, countOpen, partsOf, sideOf, takenOf } from './choices';

const entry = (change: Partial<ComparedEntry> = {}) =>
  comparedEntry({
    mine: { id: 'i', reference: 'SYS-1', title: 'Level', html: '', heading: false, links: 0 },
    theirs: { draft: 0, key: 'SYS-1', title: 'Level', html: '', heading: false, place: 'row 2' },
    match: { reason: 'key', likeness: 1 },
    ...change,
  });
const field = (name: string, verdict: 'theirs' | 'mine' | 'both' | 'conflict') => ({ field: name, label: name, base: 'b', mine: 'm', theirs: 't', verdict });

describe('choosing what to take', () => {
  it('offers only what the newer version changes', () => {
    expect(partsOf(entry({ fields: [field('title', 'theirs'), field('text', 'mine'), field('kind', 'both')], linksAdded: ['x'] }))).toEqual(['title', 'links']);
    expect(partsOf(entry({ sort: 'new' }))).toEqual(['presence']);
    expect(partsOf(entry({ sort: 'moved', place: { from: 'a', to: 'b', conflict: false } }))).toEqual(['place']);
    expect(partsOf(entry({ sort: 'returned', fields: [field('text', 'theirs')] }))).toEqual(['presence', 'text']);
  });

  it('begins with what only one side changed, and leaves clashes as they stand here', () => {
    const one = entry({ fields: [field('title', 'theirs'), field('text', 'conflict')], conflict: true });
    expect([sideOf(one, 'title', {}), sideOf(one, 'text', {}), takenOf(one, {})]).toEqual(['theirs', 'mine', 'some']);
  });

  it('keeps what was chosen for the whole when one part is chosen otherwise', () => {
    const one = entry({ fields: [field('title', 'theirs'), field('text', 'theirs')] });
    const choices = choose({ t0: 'mine' }, one, 'text', 'theirs');
    expect([sideOf(one, 'title', choices), sideOf(one, 'text', choices)]).toEqual(['mine', 'theirs']);
  });

  it('takes all of what is brought back', () => {
    const one = entry({ sort: 'returned', conflict: true, fields: [field('text', 'theirs')] });
    expect(takenOf(one, {})).toBe('none');
    expect(takenOf(one, choose({}, one, 'presence', 'theirs'))).toBe('all');
  });

  it('counts clashes that nobody chose for', () => {
    const clash = entry({ conflict: true, fields: [field('text', 'conflict')] });
    expect(countOpen([clash, entry({ id: 't1' })], {})).toBe(1);
    expect(countOpen([clash], choose({}, clash, 'text', 'mine'))).toBe(0);
  });
});
