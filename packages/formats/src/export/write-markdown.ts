import { buildIdentifier, splitIdentifier, usualIdentifier } from '@coomb/core';
import { gfm } from '@joplin/turndown-plugin-gfm';
import TurndownService from 'turndown';
import { writeSaid } from '../html/said.js';
import { plainText } from '../rich-text/sanitise.js';
import { type Column, type ExportItem, ITEM_LEVEL } from './export-items.js';

/** Level of the deepest headings that are sections; those below it say where they stand. */
const DEEPEST = ITEM_LEVEL - 1;
const TEXT = writeSaid({ isText: true });
const identifier = buildIdentifier(usualIdentifier)!;

/**
 * Items as Markdown (CommonMark with tables): sections as headings, items as headings of the lowest level, fields and links as labels. What
 * words alone do not tell, comments say: the references of sections, and which paragraphs are text though they look like an item or a label.
 */
export function* writeMarkdown(items: readonly ExportItem[], columns: readonly Column[], kind: string): Generator<string> {
  const labels = columns.filter(({ meaning }) => !['reference', 'title', 'text'].includes(meaning.as));
  const names = new Set(labels.map(({ name }) => name.toLowerCase()));
  const byReference = new Map(items.map((item) => [item.reference, item]));
  /** Sections that what follows would stand in. */
  const open: { level: number; reference: string }[] = [];
  for (const [index, item] of items.entries()) {
    const parts: string[] = index === 0 ? [] : [''];
    const above = item.parent === null ? undefined : byReference.get(item.parent);
    const level = item.heading ? Math.min(item.depth + 1, DEEPEST) : ITEM_LEVEL;
    while (open.length > 0 && open.at(-1)!.level >= level) open.pop();
    const isLabelled = !item.heading && above?.heading === false;
    const isTold = isLabelled || (open.at(-1)?.reference ?? null) === (above?.reference ?? null);
    const title = escapeHeading(item.title);
    const isShown = !item.heading && isReadBack(item);
    const said = writeSaid({
      ...(!isShown && { isText: true, reference: item.reference }),
      ...(!isTold && { parent: above?.reference ?? '' }),
    });
    const words = [isShown ? item.reference : '', title, said].filter(Boolean);
    parts.push(`${'#'.repeat(level)} ${words.join(' ')}`);
    if (item.heading) open.push({ level, reference: item.reference });
    parts.push(...writeText(item.html, names));
    for (const { name, meaning, valueOf: read } of labels) {
      if (meaning.as === 'parent' && !isLabelled) continue;
      if (meaning.as === 'kind' && (item.heading || item.kind === kind)) continue;
      const rich = meaning.as === 'field' ? item.fields[meaning.field] : undefined;
      if (typeof rich === 'string' && isFormatted(rich)) {
        const said = writeSaid({ field: name });
        if (!item.heading) parts.push(`${name}:`);
        parts.push(...splitBlocks(rich).flatMap((block) => [said, turndown.turndown(block)]));
        continue;
      }
      const value = read(item).trim();
      if (value && item.heading) parts.push(writeSaid({ field: name }));
      if (value) parts.push(`${name}: ${value.split('\n').map(escapeLine).join('<br />')}`);
    }
    yield parts.join('\n\n');
  }
  yield '\n';
}

/** Whether a heading of reference and title falls into these again. */
function isReadBack({ reference, title }: ExportItem): boolean {
  const read = splitIdentifier(`${reference} ${title}`, identifier);
  return read.reference === reference && read.rest === title.trim();
}

/** Whether a value is markup that one line of words cannot tell. */
function isFormatted(value: string): boolean {
  return /^<(?:p|[uo]l|table|blockquote|pre|figure)>/.test(value) && /<(?!\/?p>)|<\/p>./.test(value);
}

/** Blocks of a rich text. */
function writeText(html: string, labels: ReadonlySet<string>): string[] {
  if (!html) return [];
  const isList = (block: string | undefined) => block !== undefined && /^\s*<[uo]l>/.test(block);
  return splitBlocks(html).flatMap((block, index, blocks) => {
    const written = turndown.turndown(block);
    // A comment parts two lists that follow each other.
    const isSaid = isMistakable(block, labels) || (isList(block) && isList(blocks[index - 1]));
    return written ? (isSaid ? [TEXT, written] : [written]) : [];
  });
}

/** The outermost elements of a rich text. */
function splitBlocks(html: string): string[] {
  const blocks: string[] = [];
  let depth = 0;
  let start = 0;
  for (const match of html.matchAll(/<(\/?)([a-z][a-z0-9]*)[^>]*?(\/?)>/gi)) {
    if (match[3] || /^(br|img)$/i.test(match[2]!)) continue;
    depth += match[1] ? -1 : 1;
    if (depth > 0) continue;
    const end = match.index + match[0].length;
    blocks.push(html.slice(start, end));
    start = end;
  }
  return [...blocks, html.slice(start)].filter((block) => block.trim());
}

/** Whether a block would be read as something else than text: a table, a line that begins like an item or a label. */
function isMistakable(block: string, labels: ReadonlySet<string>): boolean {
  if (block.includes('<table')) return true;
  return plainText(block)
    .split('\n')
    .some(
      (line) =>
        identifier(line) !== undefined ||
        labels.has(
          line
            .slice(0, Math.max(0, line.indexOf(':')))
            .trim()
            .toLowerCase(),
        ),
    );
}

/** What turndown hands over, as far as it is used here. */
interface MarkupNode {
  outerHTML: string;
  getAttribute: (name: string) => string | null;
}

// It declares a smaller node than it hands over.
const markupOf = (node: unknown) => node as MarkupNode;

const turndown = new TurndownService({ headingStyle: 'atx', bulletListMarker: '-', emDelimiter: '*', br: '<br />', codeBlockStyle: 'fenced' });
turndown.use(gfm);
// Formulas and pictures with captions have no signs of their own: they stay the elements they are.
turndown.keep((node) => /^(?:sub|sup|u|math|figure)$/i.test(node.nodeName));
turndown.addRule('break', { filter: 'br', replacement: () => '<br />' });
/** Only tables of a header and plain rows can be told by signs; others stay elements. */
turndown.addRule('table', {
  filter: (node) => node.nodeName === 'TABLE' && !isPlainTable(node.innerHTML),
  replacement: (_, node) => `\n\n${markupOf(node).outerHTML.replace(/\n/g, ' ')}\n\n`,
});
turndown.addRule('picture', {
  filter: 'img',
  replacement: (_, node) => {
    const [src, alt] = ['src', 'alt'].map((name) => markupOf(node).getAttribute(name) ?? '') as [string, string];
    return /^[\p{L}\p{N} .,-]*$/u.test(alt) && !/^data:image\/(?:bmp|svg)/.test(src) ? `![${alt}](${src})` : markupOf(node).outerHTML;
  },
});

function isPlainTable(html: string): boolean {
  const [head = '', ...rows] = html.split('</tr>');
  return (
    /<th[\s>]/.test(head) && !/<td[\s>]/.test(head) && !/<th[\s>]/.test(rows.join('')) && !/(?:col|row)span=|<(?:p|ul|ol|table|br|img|blockquote)\b/.test(html)
  );
}

const escapeSigns = turndown.escape.bind(turndown);
turndown.escape = (text) =>
  escapeSigns(text)
    .replace(/&(?=#?\w+;)/g, '\\&')
    .replace(/<(?=[a-z/!?])/gi, '\\<')
    .replace(/~(?=~)/g, '\\~')
    .replace(/^(\s*\d+)\)/, '$1\\)')
    .replace(/\|/g, '\\|');

function escapeLine(text: string): string {
  return turndown.escape(text.replace(/\s+/g, ' ').trim());
}

/** Signs at the end of a heading close it. */
function escapeHeading(title: string): string {
  return escapeLine(title).replace(/#(?=#*$)/g, '\\#');
}
