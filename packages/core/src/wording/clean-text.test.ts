import { describe, expect, it } from 'vitest';
import { cleanAllTexts, cleanText, findUnstorable } from './clean-text.js';

describe('cleaning text', () => {
  it.each([
    ['plain', 'A plain text, with tab\tand\nlines\r\n', 'A plain text, with tab\tand\nlines\r\n', 0, 0],
    ['a soft line break', 'one\x0btwo', 'one\ntwo', 1, 0],
    ['a page break', 'one\x0ctwo', 'one\ntwo', 1, 0],
    ['line and paragraph separators', 'one\u2028two\u2029three', 'one\ntwo\nthree', 2, 0],
    ['control characters', 'a\x00b\x01c\x1fd', 'abcd', 0, 3],
    ['halves of pairs', 'a\ud800b\udc00c', 'abc', 0, 2],
    ['whole pairs stay', 'gate 🚪 and 𝒳', 'gate 🚪 and 𝒳', 0, 0],
    ['no characters', 'a\ufffeb\uffff', 'ab', 0, 2],
    ['what is only rare stays', 'a\u0085b\u00adc\u200bd\ufffd', 'a\u0085b\u00adc\u200bd\ufffd', 0, 0],
  ])('%s', (_, text, clean, breaks, dropped) => expect(cleanText(text)).toEqual({ text: clean, breaks, dropped }));

  it('breaks lines of markup by an element', () => expect(cleanText('<p>one\x0btwo</p>', true).text).toBe('<p>one<br />two</p>'));

  it('names what cannot be stored, and where', () => {
    expect(findUnstorable('ab\x01c')).toEqual({ name: 'U+0001', at: 3 });
    expect(findUnstorable('ab\x01c')).toEqual({ name: 'U+0001', at: 3 });
    expect(findUnstorable('\ud800')).toEqual({ name: 'U+D800', at: 1 });
    expect(findUnstorable('a\x0bb')).toBeUndefined();
  });

  it('goes through values of any depth, each once', () => {
    const value = {
      html: '<p>a\x0bb</p>',
      rows: [['x\x01', 'y'], ['z']],
      more: new Map<string, unknown>([
        ['k', 'v\x02'],
        ['o', { text: 'p\x0bq' }],
      ]),
      bytes: new Uint8Array([1, 11]),
    };
    Object.assign(value, { self: value });
    expect(cleanAllTexts(value, (property) => property === 'html')).toEqual({ breaks: 2, dropped: 2, texts: 4 });
    expect([value.html, value.rows, value.more.get('k'), value.more.get('o'), value.bytes]).toEqual([
      '<p>a<br />b</p>',
      [['x', 'y'], ['z']],
      'v',
      { text: 'p\nq' },
      new Uint8Array([1, 11]),
    ]);
    let deep: unknown = 'end\x01';
    for (let depth = 0; depth < 100_000; depth++) deep = [deep];
    expect(cleanAllTexts(deep, () => false).dropped).toBe(1);
  });
});
