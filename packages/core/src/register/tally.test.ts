import { describe, expect, it } from 'vitest';
import { sayTallied, talliesOf, tallyOf } from './tally.js';

const number = { type: 'number' } as const;
const levels = {
  type: 'choice',
  order: new Map(
    [
      ['Low', 0],
      ['Medium', 1],
      ['High', 2],
    ].map(([word, at]) => [word as string, at as number]),
  ),
} as const;

describe('what a column says of many rows', () => {
  it('counts what is given, missing and different, whatever the type', () => {
    const values = ['a', null, 'a', 'b'];
    const told = (as: 'given' | 'missing' | 'different') => tallyOf({ as }, values, { type: 'words' });
    expect([told('given'), told('missing'), told('different')]).toEqual([3, 1, 2]);
    expect(tallyOf({ as: 'different' }, [['x', 'y'], ['x', 'y'], ['y']], { type: 'several' })).toBe(2);
  });

  it('adds numbers up as people do, and leaves out what is not given', () => {
    expect(tallyOf({ as: 'total' }, [0.1, 0.2, null], number)).toBe(0.3);
    expect(tallyOf({ as: 'mean' }, [1, 2, null], number)).toBe(1.5);
    expect(tallyOf({ as: 'least' }, [3, -1, null], number)).toBe(-1);
    expect(tallyOf({ as: 'most' }, [3, -1, null], number)).toBe(3);
  });

  it('says nothing where there is nothing to be said: no zero, no 0 %', () => {
    for (const as of ['total', 'mean', 'least', 'most'] as const) expect(tallyOf({ as }, [null, null], number)).toBeNull();
    expect(tallyOf({ as: 'share', of: 'High' }, [], levels)).toBeNull();
    expect(tallyOf({ as: 'total' }, ['a'], { type: 'words' })).toBeNull();
  });

  it('takes words in their own order, and a share of all rows, also those that say nothing', () => {
    expect(tallyOf({ as: 'most' }, ['Medium', 'High', 'Low'], levels)).toBe('High');
    expect(tallyOf({ as: 'least' }, ['Medium', 'High', 'Low'], levels)).toBe('Low');
    expect(tallyOf({ as: 'share', of: 'High' }, ['High', null, 'Low'], levels)).toBe(33.3);
    expect(tallyOf({ as: 'share', of: 'yes' }, [true, false], { type: 'yesNo' })).toBe(50);
    expect(tallyOf({ as: 'share', of: 'x' }, [['x', 'y'], ['y']], { type: 'several' })).toBe(50);
  });

  it('is offered by type, and reads as words', () => {
    expect(talliesOf('number')).toContain('mean');
    expect(talliesOf('words')).toEqual(['given', 'missing', 'different']);
    expect(talliesOf('choice')).toContain('share');
    expect(sayTallied({ as: 'share', of: 'High' }, 33.3)).toBe('33.3 % High');
    expect(sayTallied({ as: 'mean' }, 1234.5)).toBe('mean 1,234.5');
    expect(sayTallied({ as: 'given' }, 12)).toBe('12 given');
    expect(sayTallied({ as: 'total' }, null)).toBe('');
    expect(sayTallied({ as: 'most' }, '2026-11-28T12:00:00.000Z')).toBe('most 28 Nov 2026');
    expect(sayTallied({ as: 'least' }, '2026-11-28')).toBe('least 2026-11-28');
  });
});
