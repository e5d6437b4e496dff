import type { SourceParagraph } from '../source/document.js';

const TYPED = /^\s*(\d{1,3}(?:\.\d{1,3})*)\.?\s+(?=\S)/;
const LONGEST_HEADING = 120;

/** Number that a paragraph carries: counted by the document, or typed before its words. `length` is what it takes of the text. */
export function findOutlineNumber(block: SourceParagraph): { number: string; length: number } | undefined {
  const counted = block.number !== undefined && /^\d+(?:\.\d+)*$/.test(block.number) ? block.number : undefined;
  if (counted !== undefined) return { number: counted, length: 0 };
  const typed = TYPED.exec(block.text);
  return typed ? { number: typed[1]!, length: typed[0].length } : undefined;
}

/** Level of a heading that its writer made by typing a number and few words: 1 for "3 Gates", 2 for "3.2 Lower gates". 0 for all else. */
export function findTypedLevel(block: SourceParagraph): number {
  if (block.level > 0 || block.list || block.text.length > LONGEST_HEADING || /[.;:,]\s*$/.test(block.text)) return 0;
  const typed = TYPED.exec(block.text);
  return typed && /\p{Lu}/u.test(block.text[typed[0].length]!) ? Math.min(9, typed[1]!.split('.').length) : 0;
}
