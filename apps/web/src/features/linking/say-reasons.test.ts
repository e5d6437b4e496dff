import { describe, expect, it } from 'vitest';
import { sayLikelihood, sayReasons } from './say-reasons';

describe('why two items may belong together', () => {
  it('is said in words, the weightiest first', () => {
    const like = { reference: 'SYS-004' } as never;
    expect(
      sayReasons([
        { sort: 'words', words: ['lock', 'boat', '20 min', 'pass'] },
        { sort: 'alike', like },
        { sort: 'often', count: 3 },
      ]),
    ).toBe('lock, boat, 20 min; like SYS-004');
    expect(
      sayReasons([
        { sort: 'title', words: ['gate', 'drive'] },
        { sort: 'beside', count: 1 },
      ]),
    ).toBe('names it: gate drive; linked beside it: 1');
    // No word is said twice.
    expect(
      sayReasons([
        { sort: 'title', words: ['gate'] },
        { sort: 'words', words: ['gate'] },
        { sort: 'words', words: ['gate', 'lift'] },
      ]),
    ).toBe('names it: gate; lift');
    expect(sayReasons([{ sort: 'common', count: 2 }, { sort: 'reverse' }, { sort: 'often', count: 2 }], 3)).toBe(
      '2 neighbours in common; linked the other way round; linked 2 times',
    );
  });

  it('comes with how many such were right, where that is known', () => {
    expect(sayLikelihood(null)).toBe('');
    expect(sayLikelihood(0.01)).toBe('');
    expect(sayLikelihood(0.34)).toBe('34 %');
    expect(sayLikelihood(0.7)).toBe('likely, 70 %');
  });
});
