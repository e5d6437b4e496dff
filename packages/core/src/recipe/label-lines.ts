import type { SourceParagraph } from '../source/document.js';
import { sliceWords } from './document-words.js';

/**
 * A paragraph parted where a line begins with a label that means something, such as "Priority: High" below the words of a requirement:
 * writers often break lines and not paragraphs. Other lines stay with the one before them.
 */
export function splitAtLabels(block: SourceParagraph, isLabel: (name: string) => boolean): SourceParagraph[] {
  if (!block.text.includes('\n')) return [block];
  const starts = [0];
  for (const match of block.text.matchAll(/\n\s*([^:\n]{1,40}):/g)) if (isLabel(match[1]!.trim())) starts.push(match.index + 1);
  if (starts.length === 1) return [block];
  return starts.map((start, at): SourceParagraph => {
    const end = starts[at + 1] ?? block.text.length;
    const text = block.text.slice(start, end).trim();
    const from = start + block.text.slice(start, end).indexOf(text);
    const { footnotes, comments: _, number, list, ...rest } = block;
    const own = footnotes?.filter(({ mark }) => text.includes(mark));
    return {
      ...rest,
      text,
      html: sliceWords(block, from, from + text.length),
      ...(own?.length && { footnotes: own }),
      ...(at === 0 && number !== undefined && { number }),
      ...(at === 0 && list && { list }),
    };
  });
}
