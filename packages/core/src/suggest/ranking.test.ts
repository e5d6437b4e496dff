import { describe, expect, it } from 'vitest';
import { TextRanking } from './ranking.js';
import { buildTokens } from './tokens.js';

describe('buildTokens', () => {
  it('keeps words that carry meaning, in one form', () => {
    expect(buildTokens('The gates shall be opened')).toEqual(['gate', 'open']);
    expect(buildTokens('gateDrive batteries')).toEqual(['gate', 'drive', 'battery']);
    expect(buildTokens('a of the 1')).toEqual([]);
  });
});

describe('TextRanking', () => {
  const ranking = new TextRanking(['Gate drive of the weir', 'Siren in the village', 'Drive motor with brake', 'Weir control', '']);

  it('puts the text that shares the rarest words first, and says which', () => {
    const [first, second] = ranking.rank('The weir gate drive shall stop');
    expect(first).toMatchObject({ index: 0, shared: expect.arrayContaining(['gate', 'drive', 'weir']) });
    expect(first!.shared[0]).toBe('gate');
    expect(second!.score).toBeLessThan(first!.score);
  });

  it('gives nothing for words that nobody uses', () => {
    expect(ranking.rank('zebra')).toEqual([]);
  });

  it('gives at most what is asked', () => {
    expect(ranking.rank('drive weir siren', 2)).toHaveLength(2);
  });

  it('counts a word once however often the query says it', () => {
    expect(ranking.rank('siren siren siren')).toEqual(ranking.rank('siren'));
  });
});
