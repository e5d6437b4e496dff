import { describe, expect, it } from 'vitest';
import { outlineOf } from '../../testing/outline';
import { buildMatrixSides, holdsAt } from './matrix-sides';

const outline = outlineOf([
  { reference: 'Chapter', heading: true },
  { reference: 'REQ-1', parent: 0 },
  { reference: 'REQ-2', parent: 0 },
  { reference: 'TC-1', collection: 1 },
  { reference: 'TC-2', collection: 1 },
]);
const links = {
  seq: 1,
  life: 'one',
  id: ['a', 'b', 'c'],
  from: [103, 103, 101],
  to: [101, 101, 103],
  kind: [0, 1, 2],
  suspect: [0, 1, 0],
  usages: [],
  usagePaths: [],
  fromUsage: [],
  toUsage: [],
};

describe('buildMatrixSides', () => {
  it('puts links on rows and columns, whichever way they point', () => {
    const sides = buildMatrixSides(outline, links, 0, 1, -1, 'all');
    expect([...sides.row.rows, ...sides.column.rows]).toEqual([0, 1, 2, 3, 4]);
    expect([...sides.row.parent]).toEqual([-1, 0, 0]);
    expect([...sides.links.row]).toEqual([1, 1, 1]);
    expect([...sides.links.column]).toEqual([0, 0, 0]);
    expect([...sides.row.linked]).toEqual([0, 3, 0]);
    expect(sides.byPair.get('1 3')).toHaveLength(3);
    expect(sides.byPair.get('1 3')!.filter((link) => link.suspect)).toEqual([{ id: 'b', kind: 1, suspect: true }]);
  });

  it('turns round when swapped', () => {
    const sides = buildMatrixSides(outline, links, 1, 0, -1, 'all');
    expect([...sides.row.rows]).toEqual([3, 4]);
    expect(sides.byPair.has('3 1')).toBe(true);
  });

  it('shows one link kind only', () => {
    expect(buildMatrixSides(outline, links, 0, 1, 1, 'all').shown).toBe(1);
  });

  it('narrows to gaps, with the headings above them', () => {
    expect([...buildMatrixSides(outline, links, 0, 1, -1, 'rowGaps').row.rows]).toEqual([0, 2]);
    const columns = buildMatrixSides(outline, links, 0, 1, -1, 'columnGaps');
    expect([...columns.column.rows]).toEqual([4]);
    expect(columns.shown).toBe(0);
  });
});

/** REQ-1 is a part here that is used at the weir and at the lock; a link holds at the weir only, another everywhere. */
describe('sides with a line for each use', () => {
  const weir = { path: ['weir', 'id1'], says: 'weir' };
  const lock = { path: ['lock', 'id1'], says: 'lock' };
  const inUse = {
    ...links,
    from: [103, 104, 103],
    to: [101, 101, 102],
    usages: ['weir › REQ-1'],
    usagePaths: [['weir', 'id1']],
    fromUsage: [-1, -1, -1],
    toUsage: [0, -1, -1],
  };
  const sides = buildMatrixSides(outline, inUse, 0, 1, -1, 'all', new Map([[1, [weir, lock]]]));

  it('stand below their item, with the links that hold there', () => {
    expect([...sides.row.rows]).toEqual([0, 1, 1, 1, 2]);
    expect([...sides.row.parent]).toEqual([-1, 0, 1, 1, 0]);
    expect([...sides.row.uses].map(([line, { says }]) => [line, says])).toEqual([
      [2, 'weir'],
      [3, 'lock'],
    ]);
    expect([...sides.row.linked]).toEqual([0, 2, 2, 1, 1]);
    expect(sides.row.firstUse.get(1)).toBe(2);
  });

  it('count each link once: in its use, or at the item', () => {
    expect([...sides.links.row]).toEqual([2, 1, 4]);
    expect(sides.shown).toBe(3);
  });

  it('tell links that hold here, as everywhere, and in other uses only', () => {
    const at = (line: number) => [holdsAt(sides.row, line, ['weir', 'id1']), holdsAt(sides.row, line, undefined)];
    expect(at(1)).toEqual(['elsewhere', 'here']);
    expect(at(2)).toEqual(['here', 'everywhere']);
    expect(at(3)).toEqual(['elsewhere', 'everywhere']);
    expect(holdsAt(sides.row, 2, ['id1'])).toBe('here');
    expect(holdsAt(sides.row, 4, undefined)).toBe('here');
  });

  it('are gaps where another use is linked and this one is not', () => {
    const only = { ...inUse, id: ['a'] };
    const gaps = buildMatrixSides(outline, only, 0, 1, -1, 'rowGaps', new Map([[1, [weir, lock]]]));
    expect([...gaps.row.rows]).toEqual([0, 1, 1, 1, 2]);
    expect([...buildMatrixSides(outline, only, 0, 1, -1, 'rowGaps').row.rows]).toEqual([0, 2]);
  });
});
