import { addToGroup } from '@coomb/core';

/** A line of text on a page. Lengths in points; `y` from the bottom, as PDF has it. */
export interface PdfLine {
  page: number;
  x: number;
  y: number;
  size: number;
  text: string;
  /** The same with indices raised and lowered. */
  html: string;
  /** Right end of its last piece. */
  end: number;
  /** Whether it holds a gap as wide as between the columns of a table. */
  gaps: boolean;
  fromTop: number;
  pageHeight: number;
}

export interface PdfParagraph {
  page: number;
  level: number;
  list: boolean;
  text: string;
  html: string;
}

/** Share of the page height at top and bottom in which running heads stand. */
const MARGIN = 0.09;
/** Picture fonts have bullets of their own, which come as characters of the private use area. */
const BULLET = /^[•◦▪‣–—·*\uE000-\uF8FF\uFFFD-]\s+/u;

/** Lines that stand in the margins of at least half of the pages, alike but for their numbers: page numbers and running heads. */
export function findRunningLines(pages: readonly (readonly PdfLine[])[]): Set<PdfLine> {
  const groups = new Map<string, PdfLine[]>();
  for (const line of pages.flat()) {
    const inMargin = line.fromTop < line.pageHeight * MARGIN || line.y < line.pageHeight * MARGIN;
    if (!inMargin) continue;
    const key = line.text.replace(/\d+|\b[ivxlc]+\b/gi, '#').toLowerCase();
    addToGroup(groups, key, line);
  }
  const running = new Set<PdfLine>();
  for (const [key, lines] of groups) {
    const on = new Set(lines.map((line) => line.page)).size;
    if ((on >= 2 && on * 2 >= pages.length) || /^(page )?#( (of|\/) #)?$/.test(key)) for (const line of lines) running.add(line);
  }
  return running;
}

/** What begins a paragraph of its own wherever it follows a whole sentence: a clause number, or a reference. */
const CLAUSE = /^(?:\d{1,3}(?:\.\d{1,3})+\.?\s+\S|\[?[A-Z][A-Z0-9]{1,9}[-_]\d+)/;
/** A line that ends so far before the others is the last of its paragraph. */
const SHORT = 0.85;

/**
 * Joins lines into paragraphs. Text larger than the usual size is a heading, the largest first; a wider gap, another size, a bullet, a clause
 * number after a whole sentence, or a line that ended early begins anew.
 */
export function joinParagraphs(lines: readonly PdfLine[]): PdfParagraph[] {
  const body = usualSize(lines);
  const levels = headingSizes(lines, body);
  const gap = usualGap(lines, body);
  const edges = rightEdges(lines);
  const paragraphs: (PdfParagraph & { size: number; last: PdfLine })[] = [];
  for (const line of lines) {
    const size = Math.round(line.size * 2) / 2;
    const level = line.text.length < 160 ? (levels.get(size) ?? 0) : 0;
    const list = BULLET.test(line.text);
    const before = paragraphs.at(-1);
    const goesOn =
      before !== undefined &&
      !list &&
      before.level === level &&
      before.size === size &&
      (line.page !== before.last.page
        ? level === 0 && goesOverPage(before, line, edges)
        : before.last.y - line.y < gap * WIDER && before.last.y > line.y && !endsBefore(before, line, edges));
    if (!goesOn) paragraphs.push({ page: line.page, level, list, text: line.text.replace(BULLET, ''), html: line.html.replace(BULLET, ''), size, last: line });
    else {
      const isParted = /\p{Ll}-$/u.test(before.text) && /^\p{Ll}/u.test(line.text);
      before.text = isParted ? before.text.slice(0, -1) + line.text : `${before.text} ${line.text}`;
      before.html = isParted ? before.html.slice(0, -1) + line.html : `${before.html} ${line.html}`;
      before.last = line;
    }
  }
  return paragraphs.map(({ page, level, list, text, html }) => ({ page, level, list, text, html }));
}

/** Whether a paragraph goes on at the top of the next page: its sentence is open, and its last line full or the next one small. */
function goesOverPage(before: PdfParagraph & { last: PdfLine }, line: PdfLine, edges: ReadonlyMap<number, number>): boolean {
  if (/[.!?:;]$/.test(before.text) || CLAUSE.test(line.text)) return false;
  return /^\p{Ll}/u.test(line.text) || !isShort(before.last, edges);
}

function isShort({ page, x, end }: PdfLine, edges: ReadonlyMap<number, number>): boolean {
  return end - x < ((edges.get(page) ?? end) - x) * SHORT;
}

/** Whether a paragraph is whole before a line that stands as near to it as its own lines do. */
function endsBefore(before: PdfParagraph & { last: PdfLine }, line: PdfLine, edges: ReadonlyMap<number, number>): boolean {
  if (before.level > 0 || !/[.!?:;]["”’)]?$/.test(before.text)) return false;
  if (CLAUSE.test(line.text)) return true;
  return /^[\p{Lu}\d(]/u.test(line.text) && isShort(before.last, edges);
}

/** How far to the right the text of each page goes. */
function rightEdges(lines: readonly PdfLine[]): Map<number, number> {
  const edges = new Map<number, number>();
  for (const { page, end } of lines) edges.set(page, Math.max(edges.get(page) ?? 0, end));
  return edges;
}

/** The size in which most characters are set. */
function usualSize(lines: readonly PdfLine[]): number {
  const characters = new Map<number, number>();
  for (const { size, text } of lines) {
    const rounded = Math.round(size * 2) / 2;
    characters.set(rounded, (characters.get(rounded) ?? 0) + text.length);
  }
  return [...characters].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 10;
}

function headingSizes(lines: readonly PdfLine[], body: number): Map<number, number> {
  const sizes = [...new Set(lines.map((line) => Math.round(line.size * 2) / 2))].filter((size) => size >= body * 1.1).sort((a, b) => b - a);
  return new Map(sizes.slice(0, 9).map((size, index) => [size, index + 1]));
}

/** A gap that is wider than this many usual ones parts paragraphs. */
const WIDER = 1.28;
/** Lines of a paragraph stand no further apart than this many sizes, double spacing included. */
const WIDEST = 2.4;
/** A distance that fewer lines than this share have is a chance. */
const SHARE = 0.08;

/** The distance from line to line within paragraphs: the smallest that a good part of the lines of the usual size have. */
function usualGap(lines: readonly PdfLine[], body: number): number {
  const counts = new Map<number, number>();
  let all = 0;
  lines.forEach((line, index) => {
    const before = lines[index - 1];
    if (before?.page !== line.page || Math.abs(line.size - body) > 0.5 || Math.abs(before.size - body) > 0.5) return;
    const gap = Math.round((before.y - line.y) * 2) / 2;
    if (gap < body * 0.8 || gap > body * WIDEST) return;
    counts.set(gap, (counts.get(gap) ?? 0) + 1);
    all++;
  });
  const usual = [...counts].filter(([, count]) => count >= all * SHARE).map(([gap]) => gap);
  return usual.length ? Math.min(...usual) : body * 1.3;
}
