import { describe, expect, it } from 'vitest';
import { drawNext, type DrawnRow } from './drawn-rows';

describe('rows drawn frame by frame', () => {
  const columns = [1, 2, 3];
  const wanted = { first: 0, last: 4, slots: 5, columns, isUpwards: false, most: 2 };
  const shown = (drawn: ReadonlyMap<number, DrawnRow>) => [...drawn.values()].map(({ index }) => index).toSorted((a, b) => a - b);

  it('are all drawn where nothing was', () => {
    const { drawn, waits } = drawNext(new Map(), wanted);
    expect([shown(drawn), waits]).toEqual([[0, 1, 2, 3, 4], false]);
  });

  it('come a few at a time, first those nearest to where one goes; the others stay where they were, out of sight', () => {
    let { drawn, waits } = drawNext(new Map(), wanted);
    ({ drawn, waits } = drawNext(drawn, { ...wanted, first: 10, last: 14 }));
    expect([shown(drawn), waits]).toEqual([[0, 1, 2, 13, 14], true]);
    ({ drawn, waits } = drawNext(drawn, { ...wanted, first: 10, last: 14 }));
    expect([shown(drawn), waits]).toEqual([[0, 11, 12, 13, 14], true]);
    ({ drawn, waits } = drawNext(drawn, { ...wanted, first: 10, last: 14 }));
    expect([shown(drawn), waits]).toEqual([[10, 11, 12, 13, 14], false]);
    expect(shown(drawNext(drawn, { ...wanted, isUpwards: true }).drawn)).toEqual([0, 1, 12, 13, 14]);
  });

  it('are not drawn anew where they are as wanted, and get further columns in turn', () => {
    const { drawn } = drawNext(new Map(), wanted);
    const again = drawNext(drawn, wanted);
    expect([...again.drawn.values()].every((row) => [...drawn.values()].includes(row))).toBe(true);
    const more = [1, 2, 3, 4];
    const first = drawNext(drawn, { ...wanted, columns: more });
    expect([...first.drawn.values()].filter((row) => row.columns === more).map(({ index }) => index)).toEqual([4, 3]);
    expect(first.waits).toBe(true);
  });

  it('all come at once where frames do not matter', () => {
    const { drawn } = drawNext(new Map(), wanted);
    expect(shown(drawNext(drawn, { ...wanted, first: 7, last: 11, most: Infinity }).drawn)).toEqual([7, 8, 9, 10, 11]);
  });

  it('never leave a slot to a row that was not drawn: fewer rows in sight use fewer slots', () => {
    const { drawn } = drawNext(new Map(), wanted);
    expect(shown(drawNext(drawn, { ...wanted, last: 2 }).drawn)).toEqual([0, 1, 2]);
  });
});
