import type { SourceBlock } from './document.js';

/** Words, then dots, a tab or wide blanks, then the number of a page. */
const LINE = /\S.*?(?:\.{3,}|(?:\s\.){3,}|…|\t|[ \u00a0]{3,})\s*(?:\d{1,4}|[ivxlc]{1,6})\s*$/i;
const FEWEST = 3;

/** Marks lines of a table of contents that a document holds as plain text: several in a row that each end in a page. In place. */
export function markContents(blocks: readonly SourceBlock[]): void {
  let run: SourceBlock[] = [];
  const end = () => {
    if (run.length >= FEWEST) for (const block of run) if (block.type === 'paragraph') block.aside = 'contents';
    run = [];
  };
  for (const block of blocks) {
    if (
      block.type === 'paragraph' &&
      !block.aside &&
      !block.said &&
      block.text.length < 300 &&
      block.text
        .trim()
        .split('\n')
        .every((line) => LINE.test(line))
    )
      run.push(block);
    else end();
  }
  end();
}
