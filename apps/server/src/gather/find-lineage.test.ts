import type { Draft } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { findLineage } from './find-lineage.js';

const draft = (externalId: string | null, title = 'x', role: Draft['role'] = 'item') => ({ externalId, title, role }) as Draft;
const item = (sourceId: string, externalId: string | null, title = 'x', more = {}) => ({
  bindings: [{ partner: sourceId, externalId, tag: null }],
  title,
  heading: false,
  withdrawn: false,
  ...more,
});

describe('the source that a file is a newer version of', () => {
  const known = ['R-1', 'R-2', 'R-3', 'R-4'].map((id) => item('register', id));

  it('holds at least half of its items, by identifier, in whatever case', () => {
    expect(
      findLineage(
        known,
        ['r-1', 'r-2', 'r-3', 'n-1', 'n-2', 'n-3'].map((id) => draft(id)),
      ),
    ).toBe('register');
    expect(
      findLineage(
        known,
        ['r-1', 'r-2', 'r-3', 'n-1', 'n-2', 'n-3', 'n-4'].map((id) => draft(id)),
      ),
    ).toBeNull();
  });

  it('is found by telling titles where there are no identifiers', () => {
    const titles = ['Hold the pool level', 'Sound the lock siren', 'Light the towing path', 'General'];
    const items = titles.map((title) => item('code', null, title));
    expect(
      findLineage(
        items,
        titles.map((title) => draft(null, title)),
      ),
    ).toBe('code');
    expect(
      findLineage(
        items,
        ['General', 'General', 'General'].map((title) => draft(null, title)),
      ),
    ).toBeNull();
  });

  it('is none by two items, by sections, or by what was withdrawn', () => {
    expect(findLineage(known, [draft('R-1'), draft('R-2')])).toBeNull();
    expect(
      findLineage(
        known,
        known.map(({ bindings: [{ externalId } = { externalId: null }] }) => draft(externalId, 'x', 'section')),
      ),
    ).toBeNull();
    expect(
      findLineage(
        known.map((one) => ({ ...one, withdrawn: true })),
        known.map(({ bindings: [{ externalId } = { externalId: null }] }) => draft(externalId)),
      ),
    ).toBeNull();
  });

  it('is the one that holds most', () => {
    const others = ['R-1', 'R-2', 'R-3'].map((id) => item('copy', id));
    expect(
      findLineage(
        [...others, ...known],
        known.map(({ bindings: [{ externalId } = { externalId: null }] }) => draft(externalId)),
      ),
    ).toBe('register');
  });
});
