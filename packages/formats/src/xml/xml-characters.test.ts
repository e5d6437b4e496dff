import { describe, expect, it } from 'vitest';
import { openXmlFilter, withLeftOut } from './xml-characters.js';

const filter = (pieces: readonly string[]) =>
  withLeftOut(async () => {
    const pass = openXmlFilter();
    return pieces.map((piece, at) => pass(piece, at === pieces.length - 1)).join('');
  });

describe('characters that no XML may hold', () => {
  it.each([
    ['as they are', '<a>\nGate\u0007 shut\u0000</a>', '<a>\nGate shut</a>', { count: 2, first: 'U+0007 in line 2' }],
    ['as references', '<a>&#x1F;Gate&#7;</a>', '<a>Gate</a>', { count: 2, first: 'U+001F in line 1' }],
    ['and halves of pairs as references', '<a>\n\n&#xD800;</a>', '<a>\n\n</a>', { count: 1, first: 'U+D800 in line 3' }],
  ])('are left out and counted, written %s', async (_, text, clean, leftOut) => {
    expect(await filter([text])).toEqual({ result: clean, leftOut });
    // Wherever a piece ends, the same is left out.
    for (let at = 1; at < text.length; at++) expect(await filter([text.slice(0, at), text.slice(at)]), `cut at ${at}`).toEqual({ result: clean, leftOut });
  });

  it('are not the ones that it may', async () => {
    const text = '<a b="&#10;&#x9;&amp;&lt;">&#x1F6A4; \t\r\n é 漢 &uuml; & &#</a>';
    for (let at = 0; at < text.length; at++)
      expect(await filter([text.slice(0, at), text.slice(at)])).toEqual({ result: text, leftOut: { count: 0, first: '' } });
  });
});
