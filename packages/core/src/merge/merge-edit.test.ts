import { describe, expect, it } from 'vitest';
import { mergeEdit } from './merge-edit.js';

const base = { title: 'Gate', text: '<p>Closes.</p>', 'field:priority': 'High', 'field:method': ['Test'] };

describe('mergeEdit', () => {
  it('takes what only one side changed, and what both changed alike once', () => {
    expect(mergeEdit(base, { ...base, title: 'Sluice' }, { text: '<p>Opens.</p>' })).toEqual({ changed: { text: '<p>Opens.</p>' }, conflicts: [] });
    expect(mergeEdit(base, { ...base, title: 'Sluice' }, { title: 'Sluice' })).toEqual({ changed: {}, conflicts: [] });
  });

  it('leaves alone what was sent along unchanged, though the other side changed it', () => {
    expect(mergeEdit(base, { ...base, title: 'Sluice', 'field:method': ['Analysis'] }, { title: 'Gate', 'field:method': ['Test'] })).toEqual({
      changed: {},
      conflicts: [],
    });
  });

  it('tells a conflict with all three values, a removed one as null', () => {
    const { 'field:priority': _, ...theirs } = base;
    expect(mergeEdit(base, { ...theirs, title: 'Sluice' }, { title: 'Weir gate', 'field:priority': 'Low' })).toEqual({
      changed: {},
      conflicts: [
        { field: 'title', base: 'Gate', mine: 'Weir gate', theirs: 'Sluice' },
        { field: 'field:priority', base: 'High', mine: 'Low', theirs: null },
      ],
    });
  });

  it('follows what was settled, for the fields that it was settled for', () => {
    const theirs = { ...base, title: 'Sluice', text: '<p>Rests.</p>' };
    const mine = { title: 'Weir gate', text: '<p>Opens.</p>' };
    expect(mergeEdit(base, theirs, mine, { title: 'mine', text: 'theirs' })).toEqual({ changed: { title: 'Weir gate' }, conflicts: [] });
    expect(mergeEdit(base, theirs, mine, { title: 'mine' }).conflicts.map(({ field }) => field)).toEqual(['text']);
  });
});
