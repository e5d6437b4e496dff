import { describe, expect, it } from 'vitest';
import { measureDepth } from './rich-text.js';

describe('the depth of rich text', () => {
  it.each([
    ['', 0],
    ['plain < words > here', 0],
    ['<p>One</p><p>Two</p>', 1],
    ['<ul><li><p>a<br><img src="x"></p></li></ul>', 3],
    ['<ul><li>'.repeat(500), 1000],
    ['<b>'.repeat(200_000), 200_000],
    ['</p></p><P>x</P>', 1],
  ])('%#', (html, depth) => expect(measureDepth(html)).toBe(depth));
});
