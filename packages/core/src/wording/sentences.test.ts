import { describe, expect, it } from 'vitest';
import { findSentences } from './sentences.js';

const split = (text: string) => findSentences(text).map(({ start, end }) => text.slice(start, end));

describe('sentences', () => {
  it.each([
    ['The gate shall stop. It is grey.', ['The gate shall stop.', 'It is grey.']],
    ['Hold 1.5 m of water. Never more!', ['Hold 1.5 m of water.', 'Never more!']],
    ['Stop (see SYS-001). (It is grey.)', ['Stop (see SYS-001).', '(It is grey.)']],
    ['Use paint, e.g. Grey or e.g. green, see Fig. 3.', ['Use paint, e.g. Grey or e.g. green, see Fig. 3.']],
    ['One line\nand another', ['One line', 'and another']],
    ['no end', ['no end']],
    ['It says "stop." Then it stops.', ['It says "stop."', 'Then it stops.']],
    ['   ', []],
  ])('of %j', (text, expected) => {
    expect(split(text)).toEqual(expected);
  });

  it('takes linear time on text that never ends', () => {
    expect(findSentences(`${'. '.repeat(20_000)}x`).length).toBeLessThan(20_002);
  });
});
