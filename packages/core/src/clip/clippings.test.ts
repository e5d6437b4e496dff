import { describe, expect, it } from 'vitest';
import type { SourceBlock } from '../source/document.js';
import { findCovered } from './covered.js';
import { carryClippings, type Clipping, findUnclipped, measureClipped, textOfBlock } from './clippings.js';

const paragraph = (text: string, level = 0): SourceBlock => ({ type: 'paragraph', at: 1, level, text, html: text });
const blocks: SourceBlock[] = [
  paragraph('What the gate shall do', 1),
  paragraph('The gate shall stop within 2 s. It is grey. Nobody must stand below it.'),
  {
    type: 'table',
    at: 1,
    rows: [
      [
        { text: 'A-1', html: 'A-1', span: 1 },
        { text: 'The lamp shall burn.', html: '', span: 1 },
      ],
    ],
  },
  paragraph('Shallow water is no danger.'),
];
const words = ['shall', 'must'];
const clip = (block: number, quote: string): Clipping => {
  const start = textOfBlock(blocks[block]!).indexOf(quote);
  return { id: quote, block, start, end: start + quote.length, quote };
};

describe('what is not clipped yet', () => {
  it('is each sentence with a binding word, in paragraphs and cells, but not in headings or inside other words', () => {
    expect(findUnclipped(blocks, [], words).map((one) => [one.block, one.text])).toEqual([
      [1, 'The gate shall stop within 2 s.'],
      [1, 'Nobody must stand below it.'],
      [2, 'The lamp shall burn.'],
    ]);
  });

  it('gives places that hold the very text', () => {
    for (const one of findUnclipped(blocks, [], words)) expect(textOfBlock(blocks[one.block]!).slice(one.start, one.end)).toBe(one.text);
  });

  it('leaves out what a clipping touches, be it in part', () => {
    expect(findUnclipped(blocks, [clip(1, 'shall stop'), clip(2, 'The lamp shall burn.')], words).map((one) => one.text)).toEqual([
      'Nobody must stand below it.',
    ]);
  });

  it('is nothing without words to look for, and takes them literally', () => {
    expect(findUnclipped(blocks, [], [])).toEqual([]);
    expect(findUnclipped(blocks, [], ['s.*'])).toEqual([]);
  });
});

describe('how much is accounted for', () => {
  it('counts body characters without blanks, and binding sentences', () => {
    const none = measureClipped(blocks, [], words);
    expect(none).toMatchObject({ clipped: 0, binding: 3, open: 3 });
    const some = measureClipped(blocks, [clip(1, 'The gate shall stop within 2 s.')], words);
    expect(some).toEqual({ ...none, clipped: 25, open: 2 });
  });

  it('counts overlapping clippings once', () => {
    expect(measureClipped(blocks, [clip(3, 'Shallow water'), clip(3, 'water is')], words).clipped).toBe('Shallowwateris'.length);
  });
});

describe('carrying clippings to a newer version', () => {
  it('finds them by their words wherever they stand now, other line ends notwithstanding', () => {
    const newer = [paragraph('New first.'), ...blocks.slice(0, 1), paragraph('Before. The gate  shall\nstop within 2 s. It is grey.')];
    const { placed, lost } = carryClippings([clip(1, 'The gate shall stop within 2 s.')], newer);
    expect(lost).toEqual([]);
    expect(textOfBlock(newer[placed[0]!.block]!).slice(placed[0]!.start, placed[0]!.end)).toBe('The gate  shall\nstop within 2 s.');
  });

  it('takes the nearest where the words stand twice', () => {
    const twice = [paragraph('It is grey.'), paragraph('x'), paragraph('It is grey.'), paragraph('y')];
    const one: Clipping = { id: 'a', block: 3, start: 0, end: 11, quote: 'It is grey.' };
    expect(carryClippings([one], twice).placed[0]!.block).toBe(2);
  });

  it('gives back those whose words are gone', () => {
    const { placed, lost } = carryClippings([clip(1, 'It is grey.'), clip(2, 'The lamp shall burn.')], [paragraph('It is green.'), ...blocks.slice(2)]);
    expect([placed.map((one) => one.id), lost.map((one) => one.id)]).toEqual([['The lamp shall burn.'], ['It is grey.']]);
  });
});

describe('what a recipe read', () => {
  const spec: SourceBlock[] = [
    paragraph('Preface'),
    paragraph('SYS-1 Gate', 1),
    paragraph('It shall stop.'),
    {
      type: 'table',
      at: 1,
      rows: [
        ['A', 'B'],
        ['1', '2'],
      ].map((row) => row.map((text) => ({ text, html: text, span: 1 }))),
    },
  ].map((block, index) => (block.type === 'paragraph' ? { ...block, at: index + 1 } : block)) as SourceBlock[];
  const place = { block: 1, says: 'paragraph 2' };

  it('is everything from the first item on', () => {
    expect(findCovered(spec, [place], [])).toEqual([
      { block: 1, start: 0, end: 10 },
      { block: 2, start: 0, end: 14 },
      { block: 3, start: 0, end: 3 },
      { block: 3, start: 4, end: 7 },
    ]);
  });

  it('leaves out what a remark names as skipped, but not what was only doubtful', () => {
    const issue = (code: string, at: string) => ({ severity: 'note' as const, code, at, message: '' });
    const covered = findCovered(
      spec,
      [place],
      [issue('row-empty', 'table 1, row 2'), issue('heading-ignored', 'paragraph 2'), issue('field-value', 'paragraph 3')],
    );
    expect(covered.map((one) => [one.block, one.start])).toEqual([
      [2, 0],
      [3, 0],
    ]);
  });

  it('is nothing of a document that gave no item', () => {
    expect(findCovered(spec, [], [])).toEqual([]);
  });
});
