import { describe, expect, it } from 'vitest';
import { foldAxis, narrowAxis } from './fold.js';

const tree = Int32Array.from([-1, 0, 0, 2, -1, 4]);

describe('foldAxis', () => {
  it('shows every item while nothing is folded', () => {
    const folded = foldAxis({ parent: tree }, new Set());
    expect([...folded.lines]).toEqual([0, 1, 2, 3, 4, 5]);
    expect([...folded.size]).toEqual([1, 1, 1, 1, 1, 1]);
  });

  it('lets a folded item stand for all below it', () => {
    const folded = foldAxis({ parent: tree }, new Set([0]));
    expect([...folded.lines]).toEqual([0, 4, 5]);
    expect([...folded.lineOf]).toEqual([0, 0, 0, 0, 1, 2]);
    expect([...folded.size]).toEqual([4, 1, 1]);
  });

  it('keeps an inner fold hidden inside an outer one', () => {
    expect([...foldAxis({ parent: tree }, new Set([0, 2])).lines]).toEqual([0, 4, 5]);
    expect([...foldAxis({ parent: tree }, new Set([2])).lines]).toEqual([0, 1, 2, 4, 5]);
  });

  it('refuses an axis that is not in outline order', () => {
    expect(() => foldAxis({ parent: Int32Array.from([1, -1]) }, new Set())).toThrow('outline order');
  });
});

describe('narrowAxis', () => {
  it('keeps what is wanted, with everything above it', () => {
    expect([...narrowAxis({ parent: tree }, (item) => item === 3)]).toEqual([0, 2, 3]);
    expect([...narrowAxis({ parent: tree }, () => false)]).toEqual([]);
  });
});
