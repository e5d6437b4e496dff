import { describe, expect, it } from 'vitest';
import { buildTokens } from './tokens.js';

describe('buildTokens', () => {
  it('keeps words that carry meaning, in one form', () => {
    expect(buildTokens('The gates shall be opened')).toEqual(['gate', 'open']);
    expect(buildTokens('gateDrive batteries')).toEqual(['gate', 'drive', 'battery']);
    expect(buildTokens('a of the 1')).toEqual([]);
  });
});
