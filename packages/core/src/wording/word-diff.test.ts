import { describe, expect, it } from 'vitest';
import { below, pick, seeded } from '../testing/random.js';
import { buildWordDiff, type WordChange } from './word-diff.js';

const before = (changes: WordChange[]) =>
  changes
    .filter((change) => change.type !== 'added')
    .map((change) => change.text)
    .join('');
const after = (changes: WordChange[]) =>
  changes
    .filter((change) => change.type !== 'removed')
    .map((change) => change.text)
    .join('');

/** Length of the longest common subsequence, by the textbook table. */
function commonLength(a: string[], b: string[]): number {
  let row = new Array<number>(b.length + 1).fill(0);
  for (const word of a) {
    const next = [0];
    b.forEach((other, index) => next.push(word === other ? row[index]! + 1 : Math.max(row[index + 1]!, next[index]!)));
    row = next;
  }
  return row.at(-1)!;
}

describe('buildWordDiff', () => {
  it('takes numbers and references whole', () => {
    expect(buildWordDiff('within 0.05 m, see SYS-012.', 'within 0.07 m, see SYS-013.').filter((change) => change.type !== 'same')).toEqual([
      { type: 'removed', text: '0.05' },
      { type: 'added', text: '0.07' },
      { type: 'removed', text: 'SYS-012' },
      { type: 'added', text: 'SYS-013' },
    ]);
  });

  it('marks the words that changed', () => {
    expect(buildWordDiff('The gate shall close.', 'The gate must close fast.')).toEqual([
      { type: 'same', text: 'The gate ' },
      { type: 'removed', text: 'shall' },
      { type: 'added', text: 'must' },
      { type: 'same', text: ' close' },
      { type: 'added', text: ' fast' },
      { type: 'same', text: '.' },
    ]);
  });

  it.each([
    ['', ''],
    ['', 'all new'],
    ['all gone', ''],
    ['same', 'same'],
    ['a b c', 'c b a'],
    ['Öffnung 3,40 m', 'Öffnung 3,50 m'],
  ])('rebuilds both texts: "%s" and "%s"', (old, now) => {
    const changes = buildWordDiff(old, now);
    expect([before(changes), after(changes)]).toEqual([old, now]);
  });

  it.each(Array.from({ length: 30 }, (_, seed) => seed))('keeps as much as can be kept (seed %i)', (seed) => {
    const random = seeded(seed);
    const words = ['gate', 'level', 'shall', 'open', 'close', 'the'];
    const sentence = () => Array.from({ length: below(random, 25) }, () => pick(random, words)).join(' ');
    const [old, now] = [sentence(), sentence()];
    const changes = buildWordDiff(old, now);
    expect([before(changes), after(changes)]).toEqual([old, now]);
    const pieces = (text: string) => text.match(/\s+|[\p{L}\p{N}_]+|[^\s\p{L}\p{N}_]/gu) ?? [];
    const kept = changes.filter((change) => change.type === 'same').reduce((sum, change) => sum + pieces(change.text).length, 0);
    expect(kept).toBe(commonLength(pieces(old), pieces(now)));
  });

  it('stays true, only coarser, when too much changed', () => {
    const [old, now] = ['a b c d e f', 'u v w x y z'];
    const changes = buildWordDiff(old, now, 2);
    expect(changes.map((change) => change.type)).toEqual(['removed', 'added']);
    expect([before(changes), after(changes)]).toEqual([old, now]);
  });
});
