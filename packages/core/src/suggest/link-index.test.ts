import { describe, expect, it } from 'vitest';
import { childrenOf, LinkIndex } from './link-index.js';
import { largest, Sums } from './sums.js';

const item = (parent = -1) => ({ title: '', text: '', parent });

describe('links between two lists', () => {
  const left = [item(), item(0), item(0), item(0)];
  const right = [item(), item(0), item(0), item()];
  const index = new LinkIndex(left, right);
  index.know({
    links: [
      [1, 1],
      [2, 1],
      [3, 2],
      [3, 2],
    ],
    around: { left: [[], [7, 8, 7], [], []], right: [[], [8, 8, 9], [7, 8], []] },
  });

  it('are known from either end, each once', () => {
    expect([...index.linkedWith(3)]).toEqual([2]);
    expect([...index.linkedWith(0)]).toEqual([]);
    expect(index.in).toEqual([[], [1, 2], [3], []]);
    expect([...index.usual].toSorted()).toEqual([1, 2]);
    expect(index.isEmpty).toBe(false);
  });

  it('tell how many stand beside either end that are linked with the other, and never more than asked for', () => {
    expect(index.countBeside(3, 1)).toBe(2);
    expect(index.countBeside(3, 1, 1)).toBe(1);
    expect(index.countBeside(1, 1)).toBe(1);
    expect(index.countBeside(0, 1)).toBe(0);
    expect(index.countBesideKnown(3, 1)).toBe(1);
    expect(index.countBesideKnown(3, 2)).toBe(0);
    expect(index.countBesideKnown(3, 3)).toBe(0);
  });

  it('count how often each is linked as if the pair asked about were not', () => {
    expect(index.oftenWithout(3, 1)).toBeCloseTo(Math.log(3));
    expect(index.oftenWithout(1, 1)).toBeCloseTo(Math.log(2));
    expect(index.oftenWithout(3, 3)).toBe(0);
  });

  it('share others, each once; those that are linked with many tell less', () => {
    const own = index.aroundLeft(1);
    expect([...own]).toEqual([7, 8]);
    expect(index.countCommon(own, 1)).toBe(1);
    expect(index.countCommon(own, 2)).toBe(2);
    expect(index.weighCommon(own, 1, 2)).toBeGreaterThan(index.weighCommon(own, 1, 1));
    expect(index.weighCommon(index.aroundLeft(0), 0, 1)).toBe(0);
    expect(index.besideOther(8)).toEqual([1, 2]);
    expect(index.besideOther(99)).toEqual([]);
  });

  it('are forgotten where others are known', () => {
    const other = new LinkIndex(left, right);
    other.know({ links: [[1, 1]] });
    other.know({ links: [] });
    expect([other.isEmpty, other.in.flat(), [...other.usual], other.besideOther(8)]).toEqual([true, [], [], []]);
  });

  it('stand in outlines', () => {
    expect([...childrenOf(left)]).toEqual([[0, [1, 2, 3]]]);
  });
});

describe('sums', () => {
  it('are begun anew without what was there, and keep the larger where they are raised', () => {
    const sums = new Sums(4);
    sums.begin();
    sums.add(2, 1);
    sums.add(2, 0.5);
    expect(sums.raise(1, 3)).toBe(true);
    expect(sums.raise(1, 2)).toBe(false);
    expect([0, 1, 2].map((index) => sums.of(index))).toEqual([0, 3, 1.5]);
    expect([...sums.list.subarray(0, sums.count)]).toEqual([2, 1]);
    sums.begin();
    expect([sums.of(2), sums.count]).toEqual([0, 0]);
  });

  it('have their largest chosen as sorting all of them would, of equal ones the first', () => {
    for (let round = 0; round < 50; round++) {
      const values = Float32Array.from({ length: 200 }, (_, at) => ((at * 7919 + round * 31) % 37) / 37);
      const indexes = Int32Array.from(values.keys());
      const sorted = [...indexes].sort((a, b) => values[b]! - values[a]! || a - b);
      for (const most of [1, 7, 199, 200, 300])
        expect([...largest(indexes, 200, values, most)].sort((a, b) => a - b)).toEqual(sorted.slice(0, most).sort((a, b) => a - b));
    }
  });
});
