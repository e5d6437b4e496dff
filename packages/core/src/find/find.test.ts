import { describe, expect, it } from 'vitest';
import { excerpt, fold, markTerms, termsOf } from './fold.js';
import { WordIndex } from './word-index.js';

const marked = (text: string, query: string) => markTerms(text, termsOf(query)).marks.map(([start, end]) => text.slice(start, end));

describe('fold', () => {
  it.each([
    ['Größe', 'grosse'],
    ['ＡＢ１２', 'ab12'],
    ['Ξένος', 'ξενος'],
    ['ガス', 'ガス'],
    ['한국어', '한국어'],
    ['नियंत्रण', 'नियंत्रण'],
    ['I\u0307stanbul', 'istanbul'],
  ])('%s is looked for as %s', (text, folded) => expect(fold(text)).toBe(folded));

  it('takes both forms of a sign for one', () => expect(fold('e\u0301ÉTÉ')).toBe(fold('éE\u0301te\u0301')));
});

describe('markTerms', () => {
  it.each([
    ['The gate closes; gates close, investigate.', 'gat', ['gat', 'gat']],
    ['Wir messen die Größe der Tore', 'grosse', ['Größe']],
    ['E\u0301cluse de Larkbeck', 'ecl', ['E\u0301cl']],
    ['水門は一分以内に閉じる', '一分 閉', ['一分', '閉']],
    ['Schleusentor', 'tor', ['tor']],
    ['investigate', 'ga', []],
    ['SYS-012', 'sys-012', ['SYS', '012']],
    ['🚤 Boats 🚤🚤 boat', 'boat', ['Boat', 'boat']],
    ['a+b (c)', '.*(', []],
  ])('%s, looked through for %s', (text, query, words) => expect(marked(text, query)).toEqual(words));

  it('joins marks that overlap', () => expect(marked('watergates', 'water watergates')).toEqual(['watergates']));
});

describe('excerpt', () => {
  it('is cut at blanks around the first mark, with its marks moved along', () => {
    const text = `${'before '.repeat(30)}the gate closes ${'after '.repeat(40)}`;
    const { marks } = markTerms(text, ['gate']);
    const piece = excerpt(text, marks);
    expect(piece.text).toMatch(/^…before .*the gate closes after .*after…$/);
    expect(piece.text.length).toBeLessThan(160);
    expect(piece.marks.map(([start, end]) => piece.text.slice(start, end))).toEqual(['gate']);
  });

  it('cuts no sign in two, and nothing of a short text', () => {
    const boats = '🚤'.repeat(300);
    const piece = excerpt(`${boats}門${boats}`, [[600, 601]]);
    expect(Buffer.from(piece.text).toString()).toBe(piece.text);
    expect(piece.marks.map(([start, end]) => piece.text.slice(start, end))).toEqual(['門']);
    expect(excerpt('gate', [[0, 4]])).toEqual({ text: 'gate', marks: [[0, 4]] });
  });
});

describe('WordIndex', () => {
  const index = (texts: string[]) => {
    const words = new WordIndex([4, 1]);
    texts.forEach((text, document) => {
      const [title, body = ''] = text.split(' | ');
      words.write(document, [
        { text: title!, part: 0 },
        { text: body, part: 1 },
      ]);
    });
    return words;
  };
  const find = (words: WordIndex, query: string, most = 10) => words.find(termsOf(query), most, (document) => document).map((hit) => hit.document);

  it('puts whole words before beginnings before insides, and titles before texts', () => {
    const words = index(['x | gate', 'gateway', 'floodgate', 'gate', 'nothing']);
    expect(find(words, 'gate')).toEqual([3, 1, 2, 0]);
    expect(find(words, 'gate', 2)).toEqual([3, 1]);
    expect(find(words, 'ga')).toEqual([1, 3, 0]);
  });

  it('wants every word, weighs rare ones more, and keeps the order of equals', () => {
    const words = index(['gate opens', 'gate shuts', 'gate opens', 'pump opens | gate']);
    expect(find(words, 'gate opens')).toEqual([0, 2, 3]);
    expect(find(words, 'gate never')).toEqual([]);
    expect(find(words, '…')).toEqual([]);
  });

  it('forgets what a document said before, however often it changes', () => {
    const words = index(['gate', 'pump']);
    for (let at = 0; at < 3000; at++) words.write(0, [{ text: `lock ${at}`, part: 0 }]);
    expect([find(words, 'gate'), find(words, 'lock'), find(words, '2999'), find(words, '17'), find(words, 'pump')]).toEqual([[], [0], [0], [], [1]]);
    words.remove(1);
    expect([find(words, 'pump'), words.size]).toEqual([[], 1]);
  });

  it('leaves out what has no place', () => {
    const words = index(['gate one', 'gate two']);
    expect(words.find(['gate'], 5, (document) => (document === 0 ? -1 : document)).map((hit) => hit.document)).toEqual([1]);
  });

  it('finds what plain reading finds', () => {
    const stock = ['gate', 'gates', 'pump', 'level', 'closes', '水門', '閉じる', 'größe'];
    let seed = 7;
    const random = (below: number) => (seed = (seed * 48271) % 2147483647) % below;
    const texts = Array.from({ length: 300 }, () => Array.from({ length: 1 + random(5) }, () => stock[random(stock.length)]).join(' '));
    const words = index(texts);
    for (const query of ['gat', 'pump level', '門', '閉 gate', 'grosse', 'lev gates close']) {
      const terms = termsOf(query);
      const expected = texts.flatMap((text, at) => (markTerms(text, terms).found === terms.length ? [at] : []));
      expect(
        find(words, query, 300).sort((a, b) => a - b),
        query,
      ).toEqual(expected);
    }
  });
});
