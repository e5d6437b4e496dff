import { describe, expect, it } from 'vitest';
import { outlineOf } from '../../testing/outline';
import { buildMatrixSides } from './matrix-sides';

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
