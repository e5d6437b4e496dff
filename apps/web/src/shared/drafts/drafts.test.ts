import { beforeEach, describe, expect, it } from 'vitest';
import { type Draft, dropDraft, keepDraft, readDrafts } from './drafts';

const draft: Draft = {
  about: 'SYS-004',
  path: 'items/SYS-004',
  at: '2026-11-27T08:00:00Z',
  title: 'Pool',
  html: '<p>Half a</p>',
  fields: { a: ['x'] },
  revision: 3,
};

describe('unfinished texts', () => {
  beforeEach(() => localStorage.clear());

  it('are kept apart by project and item, and gone when dropped', () => {
    keepDraft('p', 'i1', draft);
    keepDraft('p', 'i2', { ...draft, title: 'Other' });
    keepDraft('q', 'i1', { ...draft, title: 'Elsewhere' });
    expect(readDrafts('p')).toEqual({ i1: draft, i2: { ...draft, title: 'Other' } });
    dropDraft('p', 'i1');
    dropDraft('p', 'never');
    expect(Object.keys(readDrafts('p'))).toEqual(['i2']);
    expect(readDrafts('q').i1!.title).toBe('Elsewhere');
  });

  it('come from the browser’s own keeping, so that a reload has them', () => {
    keepDraft('p', 'i1', draft);
    expect(JSON.parse(localStorage.getItem('coomb.drafts.p')!)).toEqual({ i1: draft });
  });

  it('are none where what is kept cannot be read', () => {
    localStorage.setItem('coomb.drafts.p', '{"i1":{"title":3}}');
    expect(readDrafts('p')).toEqual({});
    localStorage.setItem('coomb.drafts.p', '{');
    expect(readDrafts('p')).toEqual({});
  });

  it('give the same object while nothing changes', () => {
    keepDraft('p', 'i1', draft);
    expect(readDrafts('p')).toBe(readDrafts('p'));
  });
});
