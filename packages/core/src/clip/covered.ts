import type { SourceBlock, SourcePlace } from '../source/document.js';
import type { Issue } from '../source/issue.js';
import { type Passage, textOfBlock } from './clippings.js';

/** Remarks that say that something of the document came to nothing. */
const SKIPPED = new Set([
  'text-before',
  'heading-ignored',
  'heading-empty',
  'table-ignored',
  'row-empty',
  'row-spanning',
  'row-without-item',
  'label-outside',
  'text-between',
  'contents-skipped',
  'row-foot',
]);

/**
 * What of a document a recipe read into items: from each item's place up to the next, since text, labels and tables that follow belong
 * to it. What the remarks name as skipped is not.
 */
export function findCovered(blocks: readonly SourceBlock[], places: readonly SourcePlace[], issues: readonly Issue[]): Passage[] {
  const skipped = new Set(issues.filter((issue) => SKIPPED.has(issue.code)).map((issue) => issue.at));
  const first = places.reduce((least, place) => Math.min(least, place.block ?? Number.POSITIVE_INFINITY), Number.POSITIVE_INFINITY);
  return blocks.flatMap((block, index): Passage[] => {
    if (index < first) return [];
    const name = `${block.type} ${block.at}`;
    if (skipped.has(name) || (block.type === 'paragraph' && block.page !== undefined && skipped.has(`page ${block.page}, ${name}`))) return [];
    if (block.type === 'paragraph') return [{ block: index, start: 0, end: textOfBlock(block).length }];
    let at = 0;
    return block.rows.flatMap((row, number): Passage[] => {
      const start = at;
      at += row.map((cell) => cell.text).join('\n').length + 1;
      return skipped.has(`${name}, row ${number + 1}`) ? [] : [{ block: index, start, end: at - 1 }];
    });
  });
}
