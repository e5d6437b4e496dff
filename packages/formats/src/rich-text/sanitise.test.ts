import { below, pick, seeded } from '@coomb/core/testing';
import { describe, expect, it } from 'vitest';
import { plainText, sanitiseRichText } from './sanitise.js';

describe('sanitiseRichText', () => {
  it.each([
    ['<p>plain</p>', '<p>plain</p>'],
    ['<b>a</b><i>b</i>', '<strong>a</strong><em>b</em>'],
    ['<p style="color:red" onclick="x()">a</p>', '<p>a</p>'],
    ['<script>alert(1)</script>a', 'a'],
    ['<style>p{}</style>a', 'a'],
    ['<a href="javascript:alert(1)">a</a>', '<a>a</a>'],
    ['<a href="https://example.org">a</a>', '<a href="https://example.org">a</a>'],
    ['<img src="https://example.org/x.png">', ''],
    ['<img src="//example.org/x.png">', ''],
    ['<img src="coomb-picture:media/a.png" alt="a" onerror="x()">', '<img src="coomb-picture:media/a.png" alt="a" />'],
    ['<svg><script>x</script></svg>b', 'b'],
    ['<iframe src="/"></iframe>', ''],
    ['<table><tr><td colspan="2" width="9">x</td></tr></table>', '<table><tr><td colspan="2">x</td></tr></table>'],
  ])('%s', (html, safe) => {
    expect(sanitiseRichText(html)).toBe(safe);
  });
});

describe('rich text that needs no parser', () => {
  const pieces = [
    '<p>',
    '</p>',
    '<ul>',
    '</ul>',
    '<li>',
    '</li>',
    '<strong>',
    '</strong>',
    '<blockquote>',
    '</blockquote>',
    '<br />',
    '<br>',
    'words',
    ' "a" ',
    '&amp;',
    '&lt;',
    '&quot;',
    '&nbsp;',
    '\n',
    '\r\n',
    '>',
    '<',
    '<code>',
    '</code>',
    'ü€',
    '\u0000',
    '<P>',
  ];
  const nested = [
    '<p>a</p>',
    '<ul><li>a</li><li>b <em>c</em></li></ul>',
    '<p>x<br />y</p>',
    '<blockquote><p>q</p></blockquote>',
    '<ol><li><p>a</p></li></ol>',
    '<p>a<ul><li>b</li></ul></p>',
  ];

  it.each([1, 2, 3, 4])('comes out as the parser would leave it (seed %i)', (seed) => {
    const random = seeded(seed);
    let plain = 0;
    for (let round = 0; round < 400; round++) {
      const html = Array.from({ length: 1 + below(random, 6) }, () => pick(random, random() < 0.5 ? pieces : nested)).join('');
      // An element that is taken out makes the parser read the text in any case.
      const parsed = sanitiseRichText(`${html}<x-y></x-y>`);
      expect(sanitiseRichText(html)).toBe(parsed);
      if (parsed === html) plain++;
    }
    expect(plain).toBeGreaterThan(20);
  });
});

describe('plainText', () => {
  it('gives words, one block a line', () => {
    expect(plainText('<p>a &amp; b</p><ul><li>c</li><li>d<br>e</li></ul>')).toBe('a & b\nc\nd\ne');
    expect(plainText('<table><tr><td>1</td><td>2</td></tr></table>')).toBe('1\t2');
  });
});
