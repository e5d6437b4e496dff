import type { FoldedAxis } from '@coomb/core';
import { type RefObject, useState } from 'react';
import { cellSize } from './paint-matrix';

export interface CellAt {
  row: number;
  column: number;
}

/** Where one stands in the matrix and the rectangle from there to its other corner; both within what is shown. */
export function useMatrixCursor(
  frame: RefObject<HTMLDivElement | null>,
  size: { width: number; height: number },
  axes: [FoldedAxis, FoldedAxis],
  begin: () => CellAt,
) {
  const [cursor, setCursor] = useState(begin);
  const [corner, setCorner] = useState<CellAt>();
  const [rows, columns] = axes;
  const within = ({ row, column }: CellAt): CellAt => ({
    row: Math.max(0, Math.min(row, rows.lines.length - 1)),
    column: Math.max(0, Math.min(column, columns.lines.length - 1)),
  });
  const at = within(cursor);
  const anchor = corner ? within(corner) : at;
  const moveTo = (next: CellAt, extend = false) => {
    const to = within(next);
    setCursor(to);
    setCorner(extend ? anchor : undefined);
    const box = frame.current;
    if (!box) return;
    const scrolled = (place: number, from: number, extent: number) =>
      place * cellSize < from ? place * cellSize : (place + 1) * cellSize > from + extent ? (place + 1) * cellSize - extent : from;
    box.scrollTo({ top: scrolled(to.row, box.scrollTop, size.height), left: scrolled(to.column, box.scrollLeft, size.width) });
  };
  const range = {
    top: Math.min(at.row, anchor.row),
    bottom: Math.max(at.row, anchor.row),
    left: Math.min(at.column, anchor.column),
    right: Math.max(at.column, anchor.column),
  };
  const count = (range.bottom - range.top + 1) * (range.right - range.left + 1);
  const choose = (from: CellAt, to: CellAt) => {
    setCorner(within(from));
    setCursor(within(to));
  };
  return { at, anchor, range, count, moveTo, choose };
}
export type CellRange = ReturnType<typeof useMatrixCursor>['range'];
