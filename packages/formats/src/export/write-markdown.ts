import { gfm } from '@joplin/turndown-plugin-gfm';
import TurndownService from 'turndown';
import { type Column, type ExportItem, ITEM_LEVEL } from './export-items.js';

const turndown = new TurndownService({ headingStyle: 'atx', bulletListMarker: '-', emDelimiter: '*' });
turndown.use(gfm);
turndown.keep(['sub', 'sup']);

/** Items as Markdown (CommonMark with tables): sections as headings, items as headings of the lowest level, fields and links as labels. */
export function writeMarkdown(items: readonly ExportItem[], columns: readonly Column[]): string {
  const labels = columns.filter(({ meaning }) => !['reference', 'title', 'text', 'kind'].includes(meaning.as));
  const sections = new Set(items.filter((item) => item.heading).map((item) => item.reference));
  const parts: string[] = [];
  for (const item of items) {
    const heading = turndown.escape(oneLine(item.title));
    if (item.heading) parts.push(`${'#'.repeat(Math.min(item.depth + 1, ITEM_LEVEL - 1))} ${heading}`);
    else parts.push(`${'#'.repeat(ITEM_LEVEL)} ${item.reference} ${heading}`);
    const text = item.html ? turndown.turndown(item.html) : '';
    if (text) parts.push(text);
    for (const { name, meaning, valueOf: read } of labels) {
      const value = oneLine(read(item));
      const isSection = meaning.as === 'parent' && (item.heading || item.parent === null || sections.has(item.parent));
      if (value && !isSection) parts.push(`${name}: ${turndown.escape(value)}`);
    }
  }
  return `${parts.join('\n\n')}\n`;
}

function oneLine(text: string): string {
  return text.replace(/\s+/g, ' ').trim();
}
