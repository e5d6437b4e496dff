import { describe, expect, it } from 'vitest';
import { counted, sharePercent } from './counted.js';

describe('counted', () => {
  it.each([
    [0, '0 links'],
    [1, '1 link'],
    [2, '2 links'],
    [1436, '1,436 links'],
  ])('%i', (count, words) => expect(counted(count, 'link')).toBe(words));
  it('takes a plural of its own', () => expect([counted(1, 'entry', 'entries'), counted(3, 'entry', 'entries')]).toEqual(['1 entry', '3 entries']));
});

describe('sharePercent', () => {
  it.each([
    [0, 1819, '0 %'],
    [1, 1819, '< 1 %'],
    [18, 1819, '< 1 %'],
    [19, 1819, '1 %'],
    [1801, 1819, '> 99 %'],
    [1818, 1819, '> 99 %'],
    [1819, 1819, '100 %'],
    [1, 3, '33 %'],
    [0, 0, '–'],
  ])('%i of %i is %s', (part, whole, words) => expect(sharePercent(part, whole)).toBe(words));
});
