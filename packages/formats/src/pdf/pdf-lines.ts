import { addToGroup } from '@coomb/core';

/** A line of text on a page. Lengths in points; `y` from the bottom, as PDF has it. */
export interface PdfLine {
  page: number;
  x: number;
  y: number;
  size: number;
  text: string;
  fromTop: number;
  pageHeight: number;
}

export interface PdfParagraph {
  page: number;
  level: number;
  list: boolean;
  text: string;
}

/** Share of the page height at top and bottom in which running heads stand. */
const MARGIN = 0.09;
const BULLET = /^[•◦▪‣–—·*-]\s+/u;

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

/** Joins lines into paragraphs. Text larger than the usual size is a heading, the largest first; a wider gap, another size or a bullet begins anew. */
export function joinParagraphs(lines: readonly PdfLine[]): PdfParagraph[] {
  const body = usualSize(lines);
  const levels = headingSizes(lines, body);
  const gap = usualGap(lines);
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
        ? level === 0 && /^\p{Ll}/u.test(line.text) && !/[.!?]$/.test(before.text)
        : before.last.y - line.y < gap * 1.45 && before.last.y > line.y);
    if (!goesOn) paragraphs.push({ page: line.page, level, list, text: line.text.replace(BULLET, ''), size, last: line });
    else {
      before.text = /\p{Ll}-$/u.test(before.text) && /^\p{Ll}/u.test(line.text) ? before.text.slice(0, -1) + line.text : `${before.text} ${line.text}`;
      before.last = line;
    }
  }
  return paragraphs.map(({ page, level, list, text }) => ({ page, level, list, text }));
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

/** The usual distance from line to line. */
function usualGap(lines: readonly PdfLine[]): number {
  const gaps: number[] = [];
  lines.forEach((line, index) => {
    const before = lines[index - 1];
    if (before?.page === line.page && before.y - line.y > 2) gaps.push(before.y - line.y);
  });
  gaps.sort((a, b) => a - b);
  return gaps[Math.floor(gaps.length / 2)] ?? 14;
}
