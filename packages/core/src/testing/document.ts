import type { SourceBlock, SourceCell, SourceDocument } from '../source/document.js';

type Cell = string | Partial<SourceCell>;
export type Line = string | [level: number, text: string] | { table: Cell[][]; headerRows?: number } | { list: string; ordered?: boolean };

/** A document from a few lines: strings are paragraphs, pairs headings. */
export function documentOf(...lines: Line[]): SourceDocument {
  let paragraphs = 0;
  let tables = 0;
  const cell = (one: Cell): SourceCell => (typeof one === 'string' ? { text: one, html: one, span: 1 } : { text: '', html: one.text ?? '', span: 1, ...one });
  const blocks = lines.map((line): SourceBlock => {
    if (typeof line === 'string') return { type: 'paragraph', at: ++paragraphs, level: 0, text: line, html: line };
    if (Array.isArray(line)) return { type: 'paragraph', at: ++paragraphs, level: line[0], text: line[1], html: line[1] };
    if ('list' in line)
      return { type: 'paragraph', at: ++paragraphs, level: 0, list: { depth: 1, ordered: line.ordered === true }, text: line.list, html: line.list };
    return { type: 'table', at: ++tables, rows: line.table.map((row) => row.map(cell)), ...(line.headerRows && { headerRows: line.headerRows }) };
  });
  return { blocks, pictures: new Map() };
}
