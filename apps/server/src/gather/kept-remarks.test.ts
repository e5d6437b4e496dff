import type { Issue } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { keepRemarks } from './kept-remarks.js';

const remarks = (count: number, code: string): Issue[] =>
  Array.from({ length: count }, (_, row) => ({ severity: 'warning', code, at: `Sheet!C${row + 2}`, message: `"${row}" is no date` }));

describe('remarks that are kept with a source', () => {
  it('are all there are, mostly', () => {
    const few = [...remarks(900, 'a'), ...remarks(100, 'b')];
    expect(keepRemarks(few)).toEqual(few);
  });

  it('are the first thousand of a sort, and how many more from where', () => {
    const kept = keepRemarks([...remarks(50_000, 'a'), ...remarks(3, 'b')]);
    expect(kept).toHaveLength(1004);
    expect(kept[999]).toMatchObject({ at: 'Sheet!C1001' });
    expect(kept[1000]).toEqual({
      severity: 'warning',
      code: 'a',
      at: 'Sheet!C1002',
      message: '49,000 more remarks like those above, from here on, are not kept one by one',
    });
    expect(kept.slice(1001)).toEqual(remarks(3, 'b'));
  });
});
