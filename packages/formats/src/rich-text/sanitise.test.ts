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

describe('plainText', () => {
  it('gives words, one block a line', () => {
    expect(plainText('<p>a &amp; b</p><ul><li>c</li><li>d<br>e</li></ul>')).toBe('a & b\nc\nd\ne');
    expect(plainText('<table><tr><td>1</td><td>2</td></tr></table>')).toBe('1\t2');
  });
});
