import { describe, expect, it } from 'vitest';
import { hasWord, placeOf } from './document-words.js';

describe('a binding word', () => {
  it.each([
    ['The gate shall close.', 'shall', true],
    ['The gate SHALL close.', 'shall', true],
    ['Marshalling is done by hand.', 'shall', false],
    ['It  has\n to close.', 'has to', true],
    ['Words such as "must" bind.', 'must', false],
    ['The words “must”, ‘must not’ and „shall“ bind.', 'must', false],
    ['The word "must" says that it must close.', 'must', true],
    ["The operator's gate must be the keeper's.", 'must', true],
    ["It's must and that's that.", 'must', true],
    ['“The gate must close”', 'must', true],
    ['The mark must_use is given.', 'must', false],
  ])('%s %s: %s', (text, word, says) => {
    expect(hasWord(text, word)).toBe(says);
  });
});

describe('the place of a paragraph', () => {
  const at = (more: object) => placeOf({ type: 'paragraph', at: 7, level: 0, text: '', html: '', ...more }, 3).says;

  it('is told by what people find it by: its clause, its page', () => {
    expect(at({})).toBe('paragraph 7');
    expect(at({ number: '4.1.2' })).toBe('4.1.2, paragraph 7');
    expect(at({ number: 'b)' })).toBe('paragraph 7');
    expect(at({ page: 2 })).toBe('page 2, paragraph 7');
  });
});
