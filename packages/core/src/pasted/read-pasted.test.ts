import { describe, expect, it } from 'vitest';
import { type PastedGround, readPastedLinks } from './read-pasted.js';

const ground: PastedGround = { isKnown: (text) => /^(?:SYS|TC|NEED)-\d+$/.test(text), isPhrase: (text) => ['verifies', 'is verified by'].includes(text) };
const read = (text: string) => {
  const { shape, links, left } = readPastedLinks(
    text.split('\n').map((line) => line.split('|')),
    ground,
  );
  return [
    shape,
    ...links.map(({ line, left: a, right, kind }) => `${line}: ${a} ${kind || '–'} ${right}`),
    ...left.map(({ line, says }) => `${line}! ${says}`),
  ];
};

describe('pasted cells', () => {
  it('are two columns of ends, with or without a heading', () => {
    expect(read('TC-1|SYS-1\nTC-2|SYS-2')).toEqual(['pairs', '1: TC-1 – SYS-1', '2: TC-2 – SYS-2']);
    expect(read('Test|Requirement\nTC-1|SYS-1')).toEqual(['pairs', '2: TC-1 – SYS-1']);
  });

  it('say a kind in a column of its own, wherever that stands', () => {
    expect(read('TC-1|verifies|SYS-1')).toEqual(['pairs', '1: TC-1 verifies SYS-1']);
    expect(read('TC-1|SYS-1|verifies\nTC-2|SYS-2|')).toEqual(['pairs', '1: TC-1 verifies SYS-1', '2: TC-2 – SYS-2']);
    expect(read('is verified by|SYS-1|TC-1')).toEqual(['pairs', '1: SYS-1 is verified by TC-1']);
  });

  it('name several in one cell, whatever parts them, each once', () => {
    expect(read('TC-1|SYS-1, SYS-2;SYS-3')).toEqual(['pairs', '1: TC-1 – SYS-1', '1: TC-1 – SYS-2', '1: TC-1 – SYS-3']);
    expect(read('TC-1 TC-2|SYS-1 SYS-1')).toEqual(['pairs', '1: TC-1 – SYS-1', '1: TC-2 – SYS-1']);
  });

  it('keep names that nobody knows as they are', () => {
    expect(read('TC-1|Gate drive of the weir')).toEqual(['pairs', '1: TC-1 – Gate drive of the weir']);
    expect(read('TC-1|SYS-1\nOLD 7|SYS-2')).toEqual(['pairs', '1: TC-1 – SYS-1', '2: OLD 7 – SYS-2']);
  });

  it('tell of lines that lack an end', () => {
    expect(read('TC-1|SYS-1\n\nTC-2|\n|SYS-3')).toEqual([
      'pairs',
      '1: TC-1 – SYS-1',
      '3! “TC-2” has nothing at its other end',
      '4! “SYS-3” has nothing at its other end',
    ]);
  });

  it('are a matrix with marks, or with words for kinds', () => {
    expect(read('|SYS-1|SYS-2\nTC-1|x|\nTC-2|-|✓')).toEqual(['matrix', '2: TC-1 – SYS-1', '3: TC-2 – SYS-2']);
    expect(read('tests|SYS-1|SYS-2\nTC-1|verifies|0\nTC-2||no')).toEqual(['matrix', '2: TC-1 verifies SYS-1']);
    expect(read('|SYS-1|\nTC-1|x|x\n|x|')).toEqual([
      'matrix',
      '2: TC-1 – SYS-1',
      '2! the mark in column 3 has no head',
      '3! the mark in column 2 has no reference before it',
    ]);
  });

  it('are pairs where what stands below the heads are no marks', () => {
    expect(read('|SYS-1|SYS-2\nTC-1|SYS-3|SYS-4')[0]).toBe('pairs');
    expect(read('')).toEqual(['pairs']);
  });
});
