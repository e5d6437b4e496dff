import { describe, expect, it } from 'vitest';
import { buildGroupedRows } from './grouped-rows';

const groups = [
  { id: 'verifies', count: 3 },
  { id: 'derives', count: 1 },
  { id: 'satisfies', count: 2 },
];
const say = (closed: string[] = []) => {
  const rows = buildGroupedRows(6, groups, new Set(closed));
  return Array.from({ length: rows.count }, (_, at) => {
    const row = rows.rowAt(at);
    return 'group' in row ? `${row.group} ${row.count}` : row.link;
  });
};

describe('rows of a grouped list', () => {
  it('have the name of each group before its links', () => {
    expect(say()).toEqual(['verifies 3', 0, 1, 2, 'derives 1', 3, 'satisfies 2', 4, 5]);
  });

  it('leave out the links of what is closed', () => {
    expect(say(['verifies'])).toEqual(['verifies 3', 'derives 1', 3, 'satisfies 2', 4, 5]);
    expect(say(['satisfies', 'derives'])).toEqual(['verifies 3', 0, 1, 2, 'derives 1', 'satisfies 2']);
  });

  it('are the links themselves where nothing is grouped', () => {
    const rows = buildGroupedRows(4, [], new Set());
    expect([rows.count, rows.rowAt(2), rows.placeOf(3)]).toEqual([4, { link: 2 }, 3]);
  });

  it('tell where a link stands, and back', () => {
    for (const closed of [[], ['derives'], ['verifies', 'satisfies']]) {
      const rows = buildGroupedRows(6, groups, new Set(closed));
      for (let at = 0; at < rows.count; at++) {
        const row = rows.rowAt(at);
        if ('link' in row) expect(rows.placeOf(row.link)).toBe(at);
      }
    }
    const closed = buildGroupedRows(6, groups, new Set(['verifies']));
    expect(closed.rowAt(closed.placeOf(1))).toEqual({ group: 'verifies', count: 3 });
  });
});
