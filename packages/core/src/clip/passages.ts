import { asParagraph, escapeHtml, sliceWords } from '../recipe/document-words.js';
import type { SourceBlock } from '../source/document.js';
import { findSentences } from '../wording/sentences.js';
import { type Passage, textOfBlock } from './clippings.js';

/** The words of passages, those of each block on lines of their own. */
export function quotePassages(blocks: readonly SourceBlock[], passages: readonly Passage[]): string {
  return passages.map(({ block, start, end }) => textOfBlock(blocks[block]!).slice(start, end).trim()).join('\n');
}

/** Passages as rich text: formatting and lists as they stand in the source, words of tables in lines. */
export function buildPassageHtml(blocks: readonly SourceBlock[], passages: readonly Passage[]): string {
  let html = '';
  let list = '';
  const turnTo = (next: string) => {
    if (list === next) return;
    html += (list && `</${list}>`) + (next && `<${next}>`);
    list = next;
  };
  for (const passage of passages) {
    const block = blocks[passage.block]!;
    turnTo(block.type === 'paragraph' && block.list ? (block.list.ordered ? 'ol' : 'ul') : '');
    const words = wordsOf(block, passage);
    html += list ? `<li>${words}</li>` : asParagraph(words);
  }
  turnTo('');
  return html;
}

function wordsOf(block: SourceBlock, { start, end }: Passage): string {
  if (block.type === 'paragraph') return sliceWords(block, start, end);
  return escapeHtml(textOfBlock(block).slice(start, end).trim()).replaceAll('\n', '<br>');
}

/** How a selection is moved: to another sentence, by a sentence more or less, by a word more or less at its end. */
export type PassageStep = 'next' | 'previous' | 'more' | 'less' | 'wider' | 'narrower';

/** Moves a selection by keys. Nothing selected begins at the first sentence; at the ends of the document it stays. */
export function stepPassages(blocks: readonly SourceBlock[], passages: readonly Passage[], step: PassageStep): readonly Passage[] {
  const [first, last] = [passages[0], passages.at(-1)];
  if (!first || !last) {
    const start = findAfter(blocks, { block: 0, start: 0, end: 0 });
    return start ? [start] : [];
  }
  const others = passages.slice(0, -1);
  switch (step) {
    case 'next': {
      const next = findAfter(blocks, last);
      return next ? [next] : passages;
    }
    case 'previous': {
      const previous = findBefore(blocks, first);
      return previous ? [previous] : passages;
    }
    case 'more': {
      const next = findAfter(blocks, last);
      if (!next) return passages;
      return next.block === last.block ? [...others, { ...last, end: next.end }] : [...passages, next];
    }
    case 'less': {
      const sentences = sentencesOf(blocks, last.block).filter(({ start, end }) => end < last.end && start >= last.start);
      const end = sentences.at(-1)?.end;
      if (end !== undefined) return [...others, { ...last, end }];
      return others.length ? others : passages;
    }
    case 'wider': {
      const rest = textOfBlock(blocks[last.block]!).slice(last.end);
      const word = /^\s*\S+/.exec(rest)?.[0];
      return word ? [...others, { ...last, end: last.end + word.length }] : stepPassages(blocks, passages, 'more');
    }
    case 'narrower': {
      const word = /\s*\S+\s*$/.exec(textOfBlock(blocks[last.block]!).slice(last.start, last.end))?.[0] ?? '';
      if (word.length < last.end - last.start) return [...others, { ...last, end: last.end - word.length }];
      return others.length ? others : passages;
    }
  }
}

function sentencesOf(blocks: readonly SourceBlock[], block: number): Passage[] {
  return findSentences(textOfBlock(blocks[block]!)).map((sentence) => ({ block, ...sentence }));
}

function findAfter(blocks: readonly SourceBlock[], { block, end }: Passage): Passage | undefined {
  for (let at = block; at < blocks.length; at++) {
    const found = sentencesOf(blocks, at).find((one) => at > block || one.end > end);
    // A selection that ends within a sentence goes on with the rest of it.
    if (found) return at === block && found.start < end ? { ...found, start: end } : found;
  }
  return undefined;
}

function findBefore(blocks: readonly SourceBlock[], { block, start }: Passage): Passage | undefined {
  for (let at = block; at >= 0; at--) {
    const found = sentencesOf(blocks, at).findLast((one) => at < block || one.start < start);
    if (found) return found;
  }
  return undefined;
}
