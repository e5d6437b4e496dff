import { describe, expect, it } from 'vitest';
import { buildTitle } from './title.js';

describe('buildTitle', () => {
  it.each([
    ['Stop at once.', 'Stop at once.'],
    ['  two\n lines ', 'two lines'],
    ['', ''],
  ])('keeps what is short: %j', (text, title) => {
    expect(buildTitle(text)).toBe(title);
  });

  it('cuts between words, and inside one only where it must', () => {
    const sentence = 'The weir control shall hold the pool level within five centimetres of the set level at all times.';
    expect(buildTitle(sentence)).toBe('The weir control shall hold the pool level within five centimetres of the set…');
    expect(buildTitle('x'.repeat(200))).toBe(`${'x'.repeat(78)}…`);
  });
});
