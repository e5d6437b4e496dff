import { describe, expect, it } from 'vitest';
import { documentOf } from '../testing/document.js';
import { markContents } from './mark-contents.js';

describe('tables of contents that are plain text', () => {
  const marked = (...texts: string[]) => {
    const { blocks } = documentOf(...texts);
    markContents(blocks);
    return blocks.map((block) => block.type === 'paragraph' && block.aside === 'contents');
  };

  it('are several lines in a row that end in a page', () => {
    expect(marked('Contents', '1 Scope ........ 3', '2 Gates . . . . . 4', '2.1 Travel\t12', 'Annex A   iv', 'The gate shall close.')).toEqual([
      false,
      true,
      true,
      true,
      true,
      false,
    ]);
  });

  it('are no single lines, nor sentences with numbers', () => {
    expect(marked('Level ..... 3', 'The gate shall close within 3', 'See 4', 'Travel is 340')).toEqual([false, false, false, false]);
  });
});
