import { useEffect, useReducer, useRef } from 'react';

/** What a slot of the grid shows: a row, and which of its columns. */
export interface DrawnRow {
  index: number;
  columns: readonly number[];
}

interface Wanted {
  /** Rows that lie in sight, the first and the last. */
  first: number;
  last: number;
  /** Elements that rows are drawn in, used again in turn: row 7 of 5 is drawn where row 2 was. */
  slots: number;
  columns: readonly number[];
  /** Rows nearest to where one scrolls to come first: they stay in sight longest. */
  isUpwards: boolean;
  /** Rows that are drawn anew at most. */
  most: number;
}

/**
 * What each slot shows after a frame. What one frame cannot draw stays as it was: such rows lie out of sight where they were, and such columns are
 * not there yet. Where nothing was drawn before, everything is.
 */
export function drawNext(
  before: ReadonlyMap<number, DrawnRow>,
  { first, last, slots, columns, isUpwards, most }: Wanted,
): { drawn: Map<number, DrawnRow>; waits: boolean } {
  const drawn = new Map<number, DrawnRow>();
  let [left, waits] = [before.size === 0 ? Infinity : most, false];
  for (let by = 0; by <= last - first; by++) {
    const index = isUpwards ? first + by : last - by;
    const slot = index % slots;
    const known = before.get(slot);
    if (known?.index === index && known.columns === columns) drawn.set(slot, known);
    else if (left > 0) {
      drawn.set(slot, { index, columns });
      left--;
    } else {
      waits = true;
      if (known) drawn.set(slot, known);
    }
  }
  return { drawn, waits };
}

/** Rows that one frame draws anew at most, while one scrolls: more would hold it up for longer than one does not see. */
const AT_ONCE = 8;

/** Rows by slot, some of them frame after frame while one scrolls, all at once else. */
export function useDrawnRows(wanted: Omit<Wanted, 'most'>, isScrolling: boolean): ReadonlyMap<number, DrawnRow> {
  const known = useRef<{ slots: number; drawn: ReadonlyMap<number, DrawnRow> }>({ slots: 0, drawn: new Map() });
  const [, again] = useReducer((times: number) => times + 1, 0);
  const before = known.current.slots === wanted.slots ? known.current.drawn : new Map<number, DrawnRow>();
  const { drawn, waits } = drawNext(before, { ...wanted, most: isScrolling ? AT_ONCE : Infinity });
  known.current = { slots: wanted.slots, drawn };
  useEffect(() => {
    if (!waits) return undefined;
    const frame = requestAnimationFrame(again);
    return () => cancelAnimationFrame(frame);
  });
  return drawn;
}
