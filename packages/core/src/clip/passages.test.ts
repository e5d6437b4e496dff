import { describe, expect, it } from 'vitest';
import { documentOf } from '../testing/document.js';
import { findUnclipped, type Passage } from './clippings.js';
import { buildPassageHtml, type PassageStep, quotePassages, stepPassages } from './passages.js';

const { blocks } = documentOf([1, 'Gates'], 'The gate shall close. It is grey.', { list: 'by hand;' }, { list: 'by wire.' }, { table: [['a', 'b & c']] });

describe('a selection that is moved by keys', () => {
  const walk = (from: Passage[], ...steps: PassageStep[]) =>
    quotePassages(
      blocks,
      steps.reduce<readonly Passage[]>((passages, step) => stepPassages(blocks, passages, step), from),
    );

  it.each<[string, PassageStep[], string]>([
    ['begins at the first sentence', ['next'], 'Gates'],
    ['goes from sentence to sentence', ['next', 'next', 'next'], 'It is grey.'],
    ['goes back', ['next', 'next', 'next', 'previous', 'previous'], 'Gates'],
    ['takes sentences in', ['next', 'next', 'more'], 'The gate shall close. It is grey.'],
    ['takes in what follows in other paragraphs', ['next', 'next', 'more', 'more', 'more'], 'The gate shall close. It is grey.\nby hand;\nby wire.'],
    ['lets them go again', ['next', 'next', 'more', 'more', 'less', 'less'], 'The gate shall close.'],
    ['keeps its last sentence', ['next', 'next', 'less'], 'The gate shall close.'],
    ['grows by words', ['next', 'next', 'wider', 'wider'], 'The gate shall close. It is'],
    ['shrinks by words', ['next', 'next', 'narrower', 'narrower'], 'The gate'],
    ['keeps its last word', ['next', 'narrower', 'narrower'], 'Gates'],
    ['takes in the rest of a sentence', ['next', 'next', 'wider', 'more'], 'The gate shall close. It is grey.'],
    ['grows over the end of a paragraph', ['next', 'next', 'next', 'wider'], 'It is grey.\nby hand;'],
  ])('%s', (_, steps, quote) => {
    expect(walk([], ...steps)).toBe(quote);
  });

  it('stays where the document ends', () => {
    const end = [{ block: 4, start: 2, end: 7 }];
    expect(stepPassages(blocks, end, 'next')).toEqual(end);
    expect(stepPassages(blocks, end, 'more')).toEqual(end);
    expect(stepPassages(blocks, [{ block: 0, start: 0, end: 5 }], 'previous')).toEqual([{ block: 0, start: 0, end: 5 }]);
    expect(stepPassages([], [], 'next')).toEqual([]);
  });
});

describe('a passage as rich text', () => {
  it('keeps formatting, and lists as lists', () => {
    const marked = [{ ...blocks[1]!, html: 'The <strong>gate</strong> shall close. It is grey.' }, blocks[2]!, blocks[3]!];
    const all = marked.map((block, at) => ({ block: at, start: 0, end: block.type === 'paragraph' ? block.text.length : 0 }));
    expect(buildPassageHtml(marked, [{ block: 0, start: 4, end: 21 }])).toBe('<p><strong>gate</strong> shall close.</p>');
    expect(buildPassageHtml(marked, all)).toBe('<p>The <strong>gate</strong> shall close. It is grey.</p><ul><li>by hand;</li><li>by wire.</li></ul>');
  });

  it('sets words of tables in lines', () => {
    expect(buildPassageHtml(blocks, [{ block: 4, start: 0, end: 7 }])).toBe('<p>a<br>b &amp; c</p>');
  });
});

it('does not look for binding words that are only spoken of', () => {
  const spoken = documentOf('Where it says “must”, it binds.', 'They must close.');
  expect(findUnclipped(spoken.blocks, [], ['must']).map(({ text }) => text)).toEqual(['They must close.']);
});
