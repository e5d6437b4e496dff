import { describe, expect, it } from 'vitest';
import { below, pick, seeded } from '../testing/random.js';
import { findTwins } from './near-twins.js';
import { buildTokens } from './tokens.js';

const text = (of: string, group = 0) => ({ group, text: of });

describe('texts that say nearly the same', () => {
  it('are found whatever the order of their words, and not where too little is the same', () => {
    const twins = findTwins([
      text('The gate drive shall stop within one second after the stop order.'),
      text('After the stop order the gate drive shall stop within a second.'),
      text('The gauge shall measure the pool level once every minute.'),
      text('Once every minute the gauge shall measure the level of the pool.'),
      text('The lamp shall be green.'),
    ]);
    expect(twins.map(({ a, b }) => [a, b])).toEqual([
      [0, 1],
      [2, 3],
    ]);
  });

  it('are compared within their group only, and not where they are too short to tell', () => {
    const same = 'The gate drive shall stop within one second after the stop order.';
    expect(findTwins([text(same, 0), text(same, 1)])).toEqual([]);
    expect(findTwins([text('Green lamp'), text('Green lamp')])).toEqual([]);
    expect(findTwins([])).toEqual([]);
  });

  it('are exactly those that comparing each with each finds', () => {
    const random = seeded(17);
    const vocabulary = Array.from({ length: 40 }, (_, at) => `word${at}`);
    for (const least of [0.6, 0.8, 1]) {
      const texts = Array.from({ length: 160 }, () =>
        text(Array.from({ length: 4 + below(random, 7) }, () => pick(random, vocabulary)).join(' '), below(random, 2)),
      );
      // Some are made of others by another word, so that there are twins.
      for (let at = 0; at < 80; at++) texts.push({ ...texts[at]!, text: `${texts[at]!.text.split(' ').slice(1).join(' ')} ${pick(random, vocabulary)}` });
      const sets = texts.map((one) => new Set(buildTokens(one.text)));
      const slow: string[] = [];
      for (let a = 0; a < texts.length; a++)
        for (let b = a + 1; b < texts.length; b++) {
          if (texts[a]!.group !== texts[b]!.group || sets[a]!.size < 5 || sets[b]!.size < 5) continue;
          const both = [...sets[a]!].filter((word) => sets[b]!.has(word)).length;
          const share = both / (sets[a]!.size + sets[b]!.size - both);
          if (share >= least) slow.push(`${a} ${b} ${share}`);
        }
      expect(slow.length).toBeGreaterThan(1);
      expect(findTwins(texts, least).map(({ a, b, share }) => `${a} ${b} ${share}`)).toEqual(slow);
    }
  });
});
