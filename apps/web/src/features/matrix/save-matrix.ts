import type { OutlineReply } from '@coomb/contract';
import { escapeHtml, type FoldedAxis, type FoldedCells } from '@coomb/core';
import type { Glyph } from './glyphs';
import type { MatrixSide, MatrixSides } from './matrix-sides';
import type { CellRange } from './use-matrix-cursor';

export interface ShownMatrix {
  outline: OutlineReply;
  sides: MatrixSides;
  rows: FoldedAxis;
  columns: FoldedAxis;
  cells: FoldedCells;
  /** How each mark reads. */
  words: readonly string[];
}

interface Head {
  reference: string;
  title: string;
  depth: number;
}

function headsOf(outline: OutlineReply, side: MatrixSide, axis: FoldedAxis): Head[] {
  return Array.from(axis.lines, (line) => {
    let depth = 0;
    for (let up = side.parent[line]!; up >= 0; up = side.parent[up]!) depth++;
    const row = side.rows[line]!;
    if (row < 0) return { reference: '', title: side.groups.get(line)!, depth };
    const use = side.uses.get(line);
    return { reference: outline.heading[row] ? '' : outline.reference[row]!, title: use ? `in ${use.says}` : outline.title[row]!, depth };
  });
}

/** What a cell says in words: how many where lines are folded, else its marks. */
function sayCell({ rows, columns, words }: ShownMatrix, row: number, column: number, count: number, marks: number, suspects: number): string {
  if (rows.size[row]! > 1 || columns.size[column]! > 1) return String(count);
  return `${words.filter((_, at) => marks & (1 << at)).join(', ')}${suspects > 0 ? ' (suspect)' : ''}`;
}

/** Cells of a rectangle in words, with the references of their rows before them and of their columns above. */
export function cellWords(matrix: ShownMatrix, { top, bottom, left, right }: CellRange): string[][] {
  const { outline, sides, rows, columns, cells } = matrix;
  const name = ({ reference, title }: Head) => reference || title;
  const heads = headsOf(outline, sides.column, columns);
  const found = [['', ...heads.slice(left, right + 1).map(name)]];
  headsOf(outline, sides.row, rows).forEach((head, row) => {
    if (row < top || row > bottom) return;
    const line = Array.from({ length: right - left + 1 }, () => '');
    const own = cells.row(row);
    own.columns.forEach((column, at) => {
      if (column >= left && column <= right) line[column - left] = sayCell(matrix, row, column, own.counts[at]!, own.marks[at]!, own.suspects[at]!);
    });
    found.push([name(head), ...line]);
  });
  return found;
}

/** The whole matrix as it is shown, for a table. */
export function matrixTable(matrix: ShownMatrix, name: string) {
  const { outline, sides, rows, columns, cells } = matrix;
  const words: string[] = [];
  const placeOf = new Map<string, number>();
  const filled: number[] = [];
  for (let row = 0; row < rows.lines.length; row++) {
    const own = cells.row(row);
    own.columns.forEach((column, at) => {
      const says = sayCell(matrix, row, column, own.counts[at]!, own.marks[at]!, own.suspects[at]!);
      let place = placeOf.get(says);
      if (place === undefined) placeOf.set(says, (place = words.push(says) - 1));
      filled.push(row, column, place);
    });
  }
  return { name, rows: headsOf(outline, sides.row, rows), columns: headsOf(outline, sides.column, columns), words, cells: filled };
}

const CELL = 18;
const HEAD = { width: 330, height: 230 };
/** Lines beyond which nobody can read a picture. */
export const MOST_DRAWN = 1500;

const cut = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);

/** The matrix as it is shown as a drawing of its own, with what its marks stand for below it. */
export function matrixDrawing(
  matrix: ShownMatrix,
  title: string,
  glyphs: readonly Glyph[],
  colour: (token: string) => string,
): { svg: string; width: number; height: number } {
  const { outline, sides, rows, columns, cells, words } = matrix;
  const [left, top] = [HEAD.width, HEAD.height];
  const [across, down] = [columns.lines.length * CELL, rows.lines.length * CELL];
  const width = left + across + 20;
  const height = top + down + 40 + words.length * 20;
  const parts: string[] = [];
  const put = (text: string) => parts.push(text);
  const [ink, muted, line] = [colour('fg'), colour('fg.muted'), colour('border.muted')];
  put(`<rect width="${width}" height="${height}" fill="${colour('bg.panel')}"/>`);
  put(`<text x="12" y="24" font-size="15" font-weight="600" fill="${ink}">${escapeHtml(cut(title, 46))}</text>`);
  headsOf(outline, sides.row, rows).forEach(({ reference, title: says, depth }, row) => {
    const y = top + row * CELL;
    if (!reference) put(`<rect x="0" y="${y}" width="${left + across}" height="${CELL}" fill="${colour('bg.muted')}"/>`);
    put(
      `<text x="${12 + Math.min(depth, 8) * 10}" y="${y + 13}" font-size="11" fill="${ink}">${escapeHtml(cut(`${reference} ${says}`.trim(), 48 - depth))}</text>`,
    );
  });
  headsOf(outline, sides.column, columns).forEach(({ reference, title: says }, column) => {
    const x = left + column * CELL;
    if (!reference) put(`<rect x="${x}" y="${top}" width="${CELL}" height="${down}" fill="${colour('bg.muted')}"/>`);
    put(
      `<text transform="translate(${x + 13} ${top - 8}) rotate(-90)" font-size="11" fill="${ink}">${escapeHtml(cut(`${reference} ${says}`.trim(), 34))}</text>`,
    );
  });
  for (let row = 0; row <= rows.lines.length; row++) put(`<path d="M ${left} ${top + row * CELL} h ${across}" stroke="${line}"/>`);
  for (let column = 0; column <= columns.lines.length; column++) put(`<path d="M ${left + column * CELL} ${top} v ${down}" stroke="${line}"/>`);
  for (let row = 0; row < rows.lines.length; row++) {
    const own = cells.row(row);
    own.columns.forEach((column, at) => {
      const [x, y] = [left + (column + 0.5) * CELL, top + (row + 0.5) * CELL];
      if (rows.size[row]! > 1 || columns.size[column]! > 1) {
        put(
          `<rect x="${x - 8}" y="${y - 8}" width="16" height="16" fill="${colour('moss.solid')}" fill-opacity="${Math.min(0.75, 0.2 + own.counts[at]! / 32)}"/>`,
        );
        put(`<text x="${x}" y="${y + 4}" font-size="10" text-anchor="middle" fill="${ink}">${own.counts[at]}</text>`);
        return;
      }
      const shown = glyphs.filter((_, mark) => own.marks[at]! & (1 << mark)).slice(0, 4);
      shown.forEach((glyph, place) => {
        const [dx, dy] = shown.length > 1 ? [place % 2 ? 4 : -4, shown.length === 2 ? 0 : place < 2 ? -4 : 4] : [0, 0];
        const fill = colour(own.suspects[at]! > 0 ? 'suspect' : glyph.token);
        put(`<path transform="translate(${x + dx} ${y + dy}) scale(${shown.length > 1 ? 3 : 5})" d="${glyph.path}" fill="${fill}"/>`);
      });
    });
  }
  words.forEach((says, mark) => {
    const y = top + down + 28 + mark * 20;
    put(`<path transform="translate(20 ${y - 4}) scale(5)" d="${glyphs[mark]!.path}" fill="${colour(glyphs[mark]!.token)}"/>`);
    put(`<text x="34" y="${y}" font-size="11" fill="${muted}">${escapeHtml(says)}</text>`);
  });
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" font-family="Commissioner, sans-serif">${parts.join('')}</svg>`;
  return { svg, width, height };
}
