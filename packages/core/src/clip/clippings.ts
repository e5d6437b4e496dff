import { groupBy } from '../group-by.js';
import { hasWord } from '../recipe/document-words.js';
import type { SourceBlock } from '../source/document.js';
import { findSentences } from '../wording/sentences.js';

/** Where a clipped passage stands: a block, and characters of its plain text. */
export interface Passage {
  block: number;
  start: number;
  end: number;
}

export interface Clipping extends Passage {
  id: string;
  quote: string;
}

/** Plain text of a block, as clippings count it: cells of a table stand one after another, parted by line ends. */
export function textOfBlock(block: SourceBlock): string {
  return block.type === 'table' ? block.rows.map((row) => row.map((cell) => cell.text).join('\n')).join('\n') : block.text;
}

/** Sentences that hold one of the binding words, not in quotation marks only, and that no clipping touches, in reading order. */
export function findUnclipped(blocks: readonly SourceBlock[], clippings: readonly Passage[], words: readonly string[]): (Passage & { text: string })[] {
  const taken = groupBy(clippings, (passage) => passage.block);
  const pattern = buildPattern(words);
  const found: (Passage & { text: string })[] = [];
  if (!pattern) return found;
  blocks.forEach((block, index) => {
    if (block.type === 'paragraph' && block.level > 0) return;
    const text = textOfBlock(block);
    for (const { start, end } of findSentences(text)) {
      const sentence = text.slice(start, end);
      if (!pattern.test(sentence) || !words.some((word) => word.trim() && hasWord(sentence, word.trim()))) continue;
      if (!taken.get(index)?.some((one) => one.start < end && one.end > start)) found.push({ block: index, start, end, text: sentence });
    }
  });
  return found;
}

function buildPattern(words: readonly string[]): RegExp | undefined {
  const kept = words.map((word) => word.trim().replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).filter(Boolean);
  return kept.length ? new RegExp(`(?<![\\p{L}\\p{N}])(?:${kept.join('|')})(?![\\p{L}\\p{N}])`, 'iu') : undefined;
}

export interface Accounted {
  /** Characters of body text, blanks left out, and how many of them are clipped. */
  characters: number;
  clipped: number;
  /** Sentences with a binding word, and how many of them are touched by no clipping. */
  binding: number;
  open: number;
}

/** How much of a document is accounted for. Headings do not count: they are read with what stands below them. */
export function measureClipped(blocks: readonly SourceBlock[], clippings: readonly Passage[], words: readonly string[]): Accounted {
  const taken = groupBy(clippings, (passage) => passage.block);
  let characters = 0;
  let clipped = 0;
  blocks.forEach((block, index) => {
    if (block.type === 'paragraph' && block.level > 0) return;
    const text = textOfBlock(block);
    const own = taken.get(index) ?? [];
    for (let at = 0; at < text.length; at++) {
      if (text[at]!.trim() === '') continue;
      characters++;
      if (own.some((one) => one.start <= at && at < one.end)) clipped++;
    }
  });
  return { characters, clipped, binding: findUnclipped(blocks, [], words).length, open: findUnclipped(blocks, clippings, words).length };
}

/** Finds clipped passages again in a newer version: by their words, nearest to where they stood. What is not found, or only in pieces, is given back apart. */
export function carryClippings<C extends Clipping>(clippings: readonly C[], blocks: readonly SourceBlock[]): { placed: C[]; lost: C[] } {
  const texts = blocks.map((block) => foldBlanks(textOfBlock(block)));
  const placed: C[] = [];
  const lost: C[] = [];
  for (const clipping of clippings) {
    const wanted = clipping.quote.replace(/\s+/g, ' ').trim();
    let best: Passage | undefined;
    for (const [block, { folded, at }] of texts.entries())
      for (let found = wanted ? folded.indexOf(wanted) : -1; found >= 0; found = folded.indexOf(wanted, found + 1)) {
        const passage = { block, start: at[found]!, end: at[found + wanted.length - 1]! + 1 };
        if (!best || distance(passage, clipping) < distance(best, clipping)) best = passage;
      }
    if (best) placed.push({ ...clipping, ...best });
    else lost.push(clipping);
  }
  return { placed, lost };
}

function distance(a: Passage, b: Passage): number {
  return Math.abs(a.block - b.block) * 10_000 + Math.abs(a.start - b.start);
}

/** A text with runs of blanks made one, and the place of each character in the original. */
function foldBlanks(text: string): { folded: string; at: number[] } {
  let folded = '';
  const at: number[] = [];
  for (let i = 0; i < text.length; i++) {
    const blank = text[i]!.trim() === '';
    if (blank && folded.endsWith(' ')) continue;
    folded += blank ? ' ' : text[i];
    at.push(i);
  }
  return { folded, at };
}
