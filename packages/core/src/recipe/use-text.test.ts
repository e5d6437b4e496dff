import { describe, expect, it } from 'vitest';
import { splitReferences } from './field-value.js';
import { readUseTarget, type UseTarget, writeUseTarget } from './use-text.js';

describe('a link in one use, as text', () => {
  it.each<[UseTarget, string]>([
    [{ target: 'SYS-017', otherUse: null, ownUse: ['MOD-1', 'MOD-24', 'MOD-35'] }, 'SYS-017(MOD-1/MOD-24/MOD-35)'],
    [{ target: 'MOD-35', otherUse: ['MOD-1', 'MOD-35'], ownUse: null }, 'MOD-1/MOD-35'],
    [{ target: 'MOD-35', otherUse: ['MOD-1', 'MOD-35'], ownUse: ['A-1', 'A-2'] }, 'MOD-1/MOD-35(A-1/A-2)'],
  ])('is read as it was written, and as one of several in a cell', (use, text) => {
    expect(writeUseTarget(use)).toBe(text);
    expect(readUseTarget(text)).toEqual(use);
    expect(splitReferences(`SYS-001, ${text}`)).toEqual(['SYS-001', text]);
  });

  it('is none where the text names an item and no more', () => {
    for (const text of ['SYS-017', 'SYS-017 (old)', '/SYS-017', 'SYS-017/', 'SYS(1)(2/3)', '']) expect(readUseTarget(text)).toBeUndefined();
  });
});
