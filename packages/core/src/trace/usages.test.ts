import { describe, expect, it } from 'vitest';
import { isUseWithin, mayGoOn } from './usages.js';

describe('a usage', () => {
  it('holds in every longer path that ends with it, and in no other', () => {
    expect(isUseWithin(['site', 'weir', 'drive'], ['weir', 'drive'])).toBe(true);
    expect(isUseWithin(['weir', 'drive'], ['weir', 'drive'])).toBe(true);
    expect(isUseWithin(['drive'], ['weir', 'drive'])).toBe(false);
    expect(isUseWithin(['site', 'lock', 'drive'], ['weir', 'drive'])).toBe(false);
    expect(isUseWithin(['weir', 'drive', 'motor'], ['weir', 'drive'])).toBe(false);
  });

  it('lets paths go on where it is the same, holds anywhere, or may be the same place', () => {
    expect([mayGoOn(0, 3), mayGoOn(3, 0), mayGoOn(3, 3), mayGoOn(3, 4)]).toEqual([true, true, true, false]);
    expect(mayGoOn(3, 4, { meet: (a, b) => a + b === 7 })).toBe(true);
    expect(mayGoOn(3, 5, { meet: (a, b) => a + b === 7 })).toBe(false);
  });
});
