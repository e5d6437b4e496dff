import { describe, expect, it } from 'vitest';
import { sliceHtml } from './slice-html.js';

describe('part of marked-up text', () => {
  const html = 'SYS-1 <strong>The <em>gate</em></strong> &amp; lock<br>stop.';
  it.each([
    [0, undefined, html],
    [6, undefined, '<strong>The <em>gate</em></strong> &amp; lock<br>stop.'],
    [0, 5, 'SYS-1'],
    [8, 12, '<strong>e <em>ga</em></strong>'],
    [10, 16, '<strong><em>gate</em></strong> &amp;'],
    [15, 16, '&amp;'],
    [20, 24, 'k<br>st'],
    [24, 24, ''],
  ])('from %i to %s', (start, end, expected) => {
    expect(sliceHtml(html, start, end)).toBe(expected);
  });

  it('keeps pictures where they stand and parts add up to the whole', () => {
    const pictured = 'ab<img src="coomb-picture:a.png" alt="x">cd';
    expect(sliceHtml(pictured, 0, 2)).toBe('ab');
    expect(sliceHtml(pictured, 2)).toBe('<img src="coomb-picture:a.png" alt="x">cd');
  });

  it('closes what it opens when marks end and begin side by side', () => {
    expect(sliceHtml('<em>a</em><em>b</em>c', 0)).toBe('<em>ab</em>c');
  });
});
