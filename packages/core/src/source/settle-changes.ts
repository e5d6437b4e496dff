import type { SourceBlock, SourceWords } from './document.js';

/** The document with its tracked changes accepted, or as it read before them. Blocks keep their numbers; one that is gone is empty. */
export function settleChanges(blocks: readonly SourceBlock[], changes: 'accepted' | 'rejected'): readonly SourceBlock[] {
  if (changes === 'accepted') return blocks;
  return blocks.map((block) => (block.type === 'table' ? { ...block, rows: block.rows.map((row) => row.map(reject)) } : reject(block)));
}

/** Paragraphs and cells in which a change is tracked. */
export function countTracked(blocks: readonly SourceBlock[]): number {
  let count = 0;
  for (const block of blocks)
    if (block.type === 'paragraph') count += block.tracked ? 1 : 0;
    else for (const row of block.rows) for (const cell of row) count += cell.tracked ? 1 : 0;
  return count;
}

function reject<Words extends SourceWords>(words: Words): Words {
  return words.tracked ? { ...words, text: words.tracked.text, html: words.tracked.html } : words;
}
