import { describe, expect, it } from 'vitest';
import { type Change, invert, type ItemValue, type WaiverValue } from './change.js';
import { isAsLeft } from './entities.js';

const item = (more: Partial<ItemValue> = {}): ItemValue => ({
  id: 'i1',
  projectId: 'p',
  revision: 1,
  withdrawn: false,
  details: [],
  collectionId: 'c',
  kind: 'requirement',
  reference: 'SYS-001',
  title: 'Level',
  html: '<p>Hold.</p>',
  fields: { priority: 'High', method: ['Test', 'Analysis'] },
  heading: false,
  parentId: null,
  rank: 1024,
  node: 0,
  meaningSeq: 3,
  origin: 'made',
  bindings: [],
  exchanged: {},
  createdAt: '2026-11-01T08:00:00.000Z',
  changedAt: '2026-11-01T08:00:00.000Z',
  changedBy: 'Ada',
  ...more,
});
const change = (before: ItemValue | null, after: ItemValue): Change => ({ entity: 'item', before, after });

describe('invert', () => {
  it('brings a row back to its former self, with a new revision', () => {
    const now = item({ title: 'Level band', revision: 2, meaningSeq: 7 });
    expect(invert(change(item(), now), now)).toEqual({ entity: 'item', before: now, after: item({ revision: 3 }) });
  });

  it('withdraws what was new: references are never used again', () => {
    const made = item();
    expect(invert(change(null, made), made).after).toEqual(item({ withdrawn: true, revision: 2 }));
  });

  it('is its own way back', () => {
    const now = item({ title: 'Level band', revision: 2 });
    const undone = invert(change(item(), now), now);
    expect(invert(undone, undone.after).after).toEqual({ ...now, revision: 4 });
  });

  it('works for rows of any sort', () => {
    const waiver: WaiverValue = {
      id: 'w',
      projectId: 'p',
      revision: 1,
      withdrawn: false,
      itemId: 'i1',
      rule: 'tested',
      person: 'Ada',
      reason: 'Agreed',
      until: null,
      finding: null,
      approver: null,
    };
    expect(invert({ entity: 'waiver', before: null, after: waiver }, waiver)).toMatchObject({ entity: 'waiver', after: { withdrawn: true, revision: 2 } });
  });
});

describe('isAsLeft', () => {
  it.each<[string, Partial<ItemValue>, boolean]>([
    ['nothing', {}, true],
    ['the revision count', { revision: 9 }, true],
    ['who changed it last', { changedBy: 'Bo', changedAt: '2026-12-01T08:00:00.000Z' }, true],
    ['the way the database writes a time', { createdAt: '2026-11-01 08:00:00+00' }, true],
    ['the order of fields', { fields: { method: ['Test', 'Analysis'], priority: 'High' } }, true],
    ['the title', { title: 'Level band' }, false],
    ['a field', { fields: { priority: 'Low', method: ['Test', 'Analysis'] } }, false],
    ['the order inside a field of several', { fields: { priority: 'High', method: ['Analysis', 'Test'] } }, false],
    ['its place', { rank: 2048 }, false],
    ['its parent', { parentId: 'x' }, false],
    ['being withdrawn', { withdrawn: true }, false],
    ['the moment it was made', { createdAt: '2026-11-01T08:00:01.000Z' }, false],
  ])('when %s differs', (_, more, same) => {
    expect(isAsLeft('item', item(), item(more))).toBe(same);
  });
});
