import { describe, expect, it } from 'vitest';
import type { SourceParagraph } from '../source/document.js';
import { OpenBlocks } from './open-blocks.js';

type Part = [html: string, depth?: number, ordered?: boolean, quoted?: boolean];

function write(...parts: Part[]): string {
  const blocks = new OpenBlocks();
  const added = parts.map(([html, depth = 0, ordered = false, quoted = false]) => {
    const list: SourceParagraph['list'] = { depth, ordered };
    return blocks.add({ html, ...(depth > 0 && { list }), ...(quoted && { quoted }) });
  });
  return added.join('') + blocks.close();
}

describe('OpenBlocks', () => {
  it.each<[string, Part[], string]>([
    ['paragraphs', [['a'], ['b']], '<p>a</p><p>b</p>'],
    ['a list', [['a', 1], ['b', 1], ['c']], '<ul><li>a</li><li>b</li></ul><p>c</p>'],
    [
      'a list in a list',
      [
        ['a', 1],
        ['b', 2, true],
        ['c', 1],
      ],
      '<ul><li>a<ol><li>b</li></ol></li><li>c</li></ul>',
    ],
    [
      'a list of another sort',
      [
        ['a', 1],
        ['b', 1, true],
      ],
      '<ul><li>a</li></ul><ol><li>b</li></ol>',
    ],
    [
      'a list that begins deep',
      [
        ['a', 3],
        ['b', 3],
        ['c', 1],
      ],
      '<ul><li>a</li><li>b</li></ul><ul><li>c</li></ul>',
    ],
    ['quotations', [['a', 0, false, true], ['b', 1, false, true], ['c']], '<blockquote><p>a</p><ul><li>b</li></ul></blockquote><p>c</p>'],
  ])('writes %s', (_, parts, html) => {
    expect(write(...parts)).toBe(html);
  });
});
