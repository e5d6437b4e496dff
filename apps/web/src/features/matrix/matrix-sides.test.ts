import type { PackedEntries } from '@coomb/core';
import { foldAxis } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { outlineOf } from '../../testing/outline';
import { buildMatrixSides, holdsAt, isItemLine } from './matrix-sides';

const outline = outlineOf([
  { reference: 'Chapter', heading: true },
  { reference: 'REQ-1', parent: 0 },
  { reference: 'REQ-2', parent: 0 },
  { reference: 'TC-1', collection: 1 },
  { reference: 'TC-2', collection: 1 },
]);
const scope = (...collections: number[]) => ({ collections: collections.map((at) => outline.collections[at]!), kinds: [], below: [] as string[] });
/** Entries as row node, column node, mark, whether suspect, and usages of both. */
const entriesOf = (...list: [number, number, number?, number?, number?, number?][]): PackedEntries => ({
  row: Int32Array.from(list, ([row]) => row),
  column: Int32Array.from(list, ([, column]) => column),
  mark: Uint8Array.from(list, ([, , mark = 0]) => mark),
  suspect: Uint8Array.from(list, ([, , , suspect = 0]) => suspect),
  rowUse: Int32Array.from(list, ([, , , , use = -1]) => use),
  columnUse: Int32Array.from(list, ([, , , , , use = -1]) => use),
});
const asked = { rows: scope(0), columns: scope(1), entries: entriesOf([101, 103, 0], [101, 103, 1, 1]), usagePaths: [], show: 'all' as const };
const cellAt = (sides: ReturnType<typeof buildMatrixSides>, row: number, column: number) =>
  sides.cells.fold(foldAxis(sides.row, new Set()), foldAxis(sides.column, new Set())).at(row, column);

describe('buildMatrixSides', () => {
  it('puts what stands between items on rows and columns', () => {
    const sides = buildMatrixSides(outline, asked);
    expect([...sides.row.rows, ...sides.column.rows]).toEqual([0, 1, 2, 3, 4]);
    expect([...sides.row.parent]).toEqual([-1, 0, 0]);
    expect([...sides.row.linked]).toEqual([0, 2, 0]);
    expect(cellAt(sides, 1, 0)).toEqual({ count: 2, marks: 3, suspect: 1 });
    expect(cellAt(sides, 2, 0)).toBeUndefined();
    expect(sides.entriesAt(1, 0)).toHaveLength(2);
  });

  it('leaves out what is not in the scopes, and says how much', () => {
    const sides = buildMatrixSides(outline, { ...asked, entries: entriesOf([101, 103], [102, 101], [999, 103]) });
    expect([sides.shown, sides.outside]).toEqual([1, 2]);
  });

  it('narrows a side to what stands below an item, or to kinds with the headings above', () => {
    const below = buildMatrixSides(outline, { ...asked, rows: { ...scope(0), below: ['id1'] } });
    expect([...below.row.rows]).toEqual([1]);
    const kinds = buildMatrixSides(outline, { ...asked, rows: { ...scope(0), kinds: ['nothing'] } });
    expect([...kinds.row.rows]).toEqual([]);
    expect([...buildMatrixSides(outline, { ...asked, rows: scope(0, 1) }).row.rows]).toEqual([0, 1, 2, 3, 4]);
  });

  it('narrows to gaps, or to what is linked, with the headings above them', () => {
    expect([...buildMatrixSides(outline, { ...asked, show: 'rowGaps' }).row.rows]).toEqual([0, 2]);
    const columns = buildMatrixSides(outline, { ...asked, show: 'columnGaps' });
    expect([...columns.column.rows]).toEqual([4]);
    expect(columns.shown).toBe(0);
    const linked = buildMatrixSides(outline, { ...asked, show: 'linked' });
    expect([...linked.row.rows, ...linked.column.rows]).toEqual([0, 1, 3]);
  });

  it('orders by the number of links, and along the diagonal, without headings', () => {
    const entries = entriesOf([101, 104], [102, 103], [102, 104]);
    const byNumber = buildMatrixSides(outline, { ...asked, entries, order: 'number' });
    expect([...byNumber.row.rows, ...byNumber.column.rows]).toEqual([2, 1, 4, 3]);
    expect(cellAt(byNumber, 0, 1)).toMatchObject({ count: 1 });
    const crossed = entriesOf([101, 104], [102, 103]);
    const diagonal = buildMatrixSides(outline, { ...asked, entries: crossed, order: 'diagonal' });
    expect(diagonal.gathered).toEqual({ before: 0.5, after: 0 });
    expect(cellAt(diagonal, 0, 0)).toMatchObject({ count: 1 });
    expect(cellAt(diagonal, 1, 1)).toMatchObject({ count: 1 });
  });

  it('groups a side by what its items say', () => {
    const sides = buildMatrixSides(outline, {
      ...asked,
      rowGroups: [
        { label: 'High', nodes: [102] },
        { label: '', nodes: [101, 999] },
        { label: 'Low', nodes: [103] },
      ],
    });
    expect([...sides.row.rows]).toEqual([-1, 2, -1, 1]);
    expect([...sides.row.groups]).toEqual([
      [0, 'High'],
      [2, 'nothing said'],
    ]);
    expect([0, 1].map((line) => isItemLine(outline, sides.row, line))).toEqual([false, true]);
    const folded = foldAxis(sides.row, new Set([2]));
    expect(sides.cells.fold(folded, foldAxis(sides.column, new Set())).at(2, 0)).toMatchObject({ count: 2 });
  });
});

/** REQ-1 is a part here that is used at the weir and at the lock; a link holds at the weir only, another everywhere. */
describe('sides with a line for each use', () => {
  const weir = { path: ['weir', 'id1'], says: 'weir' };
  const lock = { path: ['lock', 'id1'], says: 'lock' };
  const uses = new Map([[1, [weir, lock]]]);
  const inUse = { ...asked, entries: entriesOf([101, 103, 0, 0, 0], [101, 104], [102, 103]), usagePaths: [['weir', 'id1']], uses };
  const sides = buildMatrixSides(outline, inUse);

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
    expect([cellAt(sides, 2, 0), cellAt(sides, 1, 1), cellAt(sides, 4, 0)].map((cell) => cell?.count)).toEqual([1, 1, 1]);
    expect(sides.shown).toBe(3);
    expect(sides.entriesAt(3, 0)).toHaveLength(1);
    expect(sides.rowUse(sides.entriesAt(3, 0)[0]!)).toEqual(['weir', 'id1']);
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
    const only = { ...inUse, entries: entriesOf([101, 103, 0, 0, 0]), show: 'rowGaps' as const };
    expect([...buildMatrixSides(outline, only).row.rows]).toEqual([0, 1, 1, 1, 2]);
    const { uses: _, ...together } = only;
    expect([...buildMatrixSides(outline, together).row.rows]).toEqual([0, 2]);
  });
});
