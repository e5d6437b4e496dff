import type { Coat, FoldedAxis, FoldedCells } from '@coomb/core';
import type { Glyph } from './glyphs';

export const cellSize = 22;

export interface MatrixLook {
  colour: (token: string) => string;
  rows: FoldedAxis;
  columns: FoldedAxis;
  cells: FoldedCells;
  glyphs: readonly Glyph[];
  isRowGap: (line: number) => boolean;
  isColumnGap: (line: number) => boolean;
  isHeading: (side: 'row' | 'column', line: number) => boolean;
  /** Where what an unfolded cell holds holds, where lines are uses; else of its marks alone. */
  markOf: ((row: number, column: number) => CellLook | undefined) | undefined;
  /** What a colour key says of the link that an unfolded cell holds. */
  coatAt: ((row: number, column: number) => Coat | undefined) | undefined;
  cursor: { row: number; column: number };
  /** The other corner of the rectangle that is chosen. */
  anchor: { row: number; column: number };
  focused: boolean;
}

export interface CellLook {
  mark: 'here' | 'everywhere' | 'elsewhere';
  marks: number;
  count: number;
  suspect: boolean;
}

interface View {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** Shapes as the canvas draws them, made once for each. */
const drawn = new Map<string, Path2D>();
function pathOf({ path }: Glyph): Path2D {
  let known = drawn.get(path);
  if (!known) drawn.set(path, (known = new Path2D(path)));
  return known;
}

/** Paints the cells in sight: marks by their shapes, counts of what is folded, gap lines shaded, the cursor and the rectangle framed. */
export function paintMatrix(context: CanvasRenderingContext2D, view: View, look: MatrixLook): void {
  const { colour, rows, columns, cells } = look;
  const firstRow = Math.floor(view.top / cellSize);
  const lastRow = Math.min(rows.lines.length - 1, Math.ceil((view.top + view.height) / cellSize));
  const firstColumn = Math.floor(view.left / cellSize);
  const lastColumn = Math.min(columns.lines.length - 1, Math.ceil((view.left + view.width) / cellSize));
  const x = (column: number) => column * cellSize - view.left;
  const y = (row: number) => row * cellSize - view.top;
  const right = Math.min(view.width, x(columns.lines.length));
  const bottom = Math.min(view.height, y(rows.lines.length));
  context.fillStyle = colour('bg.panel');
  context.fillRect(0, 0, right, bottom);
  for (let row = firstRow; row <= lastRow; row++) shade(context, look, 'row', row, 0, y(row), right, cellSize);
  for (let column = firstColumn; column <= lastColumn; column++) shade(context, look, 'column', column, x(column), 0, cellSize, bottom);
  paintChosen(context, look, x, y);
  context.strokeStyle = colour('border.muted');
  context.lineWidth = 1;
  context.beginPath();
  for (let row = firstRow; row <= lastRow + 1; row++) {
    context.moveTo(0, y(row) - 0.5);
    context.lineTo(right, y(row) - 0.5);
  }
  for (let column = firstColumn; column <= lastColumn + 1; column++) {
    context.moveTo(x(column) - 0.5, 0);
    context.lineTo(x(column) - 0.5, bottom);
  }
  context.stroke();
  context.font = '11px "Commissioner Variable", sans-serif';
  context.textAlign = 'center';
  context.textBaseline = 'middle';
  for (let row = firstRow; row <= lastRow; row++) {
    const line = cells.row(row);
    for (let at = placeOf(line.columns, firstColumn); at < line.columns.length && line.columns[at]! <= lastColumn; at++) {
      const column = line.columns[at]!;
      const isFolded = rows.size[row]! > 1 || columns.size[column]! > 1;
      const [count, marks, suspects] = [line.counts[at]!, line.marks[at]!, line.suspects[at]!];
      if (isFolded) paintCount(context, look, count, suspects > 0, x(column), y(row));
      else if (!look.markOf)
        paintMarks(context, look, { mark: 'here', marks, count, suspect: suspects > 0, coat: look.coatAt?.(row, column) }, x(column), y(row));
    }
    // Where lines are uses, a cell without an entry of its own may still be linked, as everywhere or elsewhere.
    if (look.markOf && rows.size[row] === 1)
      for (let column = firstColumn; column <= lastColumn; column++) {
        const cell = columns.size[column] === 1 ? look.markOf(row, column) : undefined;
        if (cell) paintMarks(context, look, { ...cell, coat: look.coatAt?.(row, column) }, x(column), y(row));
      }
  }
  context.strokeStyle = colour(look.focused ? 'moss.solid' : 'border.emphasized');
  context.lineWidth = 2;
  context.strokeRect(x(look.cursor.column), y(look.cursor.row), cellSize - 1, cellSize - 1);
}

/** Place of the first of ascending numbers that is not below another. */
function placeOf(ascending: Int32Array, least: number): number {
  let [low, high] = [0, ascending.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (ascending[middle]! < least) low = middle + 1;
    else high = middle;
  }
  return low;
}

function paintChosen(
  context: CanvasRenderingContext2D,
  { cursor, anchor, colour }: MatrixLook,
  x: (column: number) => number,
  y: (row: number) => number,
): void {
  if (cursor.row === anchor.row && cursor.column === anchor.column) return;
  const [left, top] = [Math.min(cursor.column, anchor.column), Math.min(cursor.row, anchor.row)];
  const [right, bottom] = [Math.max(cursor.column, anchor.column) + 1, Math.max(cursor.row, anchor.row) + 1];
  context.fillStyle = colour('moss.muted');
  context.globalAlpha = 0.55;
  context.fillRect(x(left), y(top), x(right) - x(left) - 1, y(bottom) - y(top) - 1);
  context.globalAlpha = 1;
  context.strokeStyle = colour('moss.solid');
  context.lineWidth = 1;
  context.strokeRect(x(left) - 0.5, y(top) - 0.5, x(right) - x(left), y(bottom) - y(top));
}

function shade(
  context: CanvasRenderingContext2D,
  look: MatrixLook,
  side: 'row' | 'column',
  line: number,
  x: number,
  y: number,
  width: number,
  height: number,
): void {
  const isGap = side === 'row' ? look.isRowGap(line) : look.isColumnGap(line);
  if (look.isHeading(side, line)) context.fillStyle = look.colour('bg.muted');
  else if (isGap) context.fillStyle = look.colour('brick.subtle');
  else return;
  context.fillRect(x, y, width, height);
}

function paintCount(context: CanvasRenderingContext2D, { colour }: MatrixLook, count: number, isSuspect: boolean, x: number, y: number): void {
  context.fillStyle = colour('moss.solid');
  context.globalAlpha = Math.min(0.75, 0.2 + count / 32);
  context.fillRect(x + 1, y + 1, cellSize - 3, cellSize - 3);
  context.globalAlpha = 1;
  context.fillStyle = colour('fg');
  context.fillText(count > 999 ? `${Math.round(count / 1000)}k` : String(count), x + cellSize / 2, y + cellSize / 2);
  if (!isSuspect) return;
  context.fillStyle = colour('suspect');
  context.beginPath();
  context.arc(x + cellSize - 5, y + 4, 2.5, 0, 2 * Math.PI);
  context.fill();
}

function paintMarks(
  context: CanvasRenderingContext2D,
  look: MatrixLook,
  { mark, marks, count, suspect, coat }: CellLook & { coat?: Coat | undefined },
  x: number,
  y: number,
): void {
  const { colour, glyphs } = look;
  const centre = { x: x + cellSize / 2 - 0.5, y: y + cellSize / 2 - 0.5 };
  if (mark === 'elsewhere') {
    // Linked in other uses only.
    context.fillStyle = colour('heather.fg');
    context.fillRect(centre.x - 4, centre.y - 0.75, 8, 1.5);
    return;
  }
  const shown = glyphs.filter((_, at) => marks & (1 << at));
  const many = shown.length > 1;
  shown.slice(0, 4).forEach((glyph, at) => {
    const size = many ? 3.6 : glyph.isDerived ? 6.5 : mark === 'here' ? 6 : 5;
    const [dx, dy] = many ? [at % 2 === 0 ? -4.4 : 4.4, shown.length === 2 ? 0 : at < 2 ? -4.4 : 4.4] : [0, 0];
    context.save();
    context.translate(centre.x + dx, centre.y + dy);
    context.scale(size, size);
    context.fillStyle = context.strokeStyle = coat?.line ?? coat?.fill ?? colour(suspect ? 'suspect' : glyph.token);
    context.lineWidth = 1.5 / size;
    // In every use, and so here too.
    if (mark === 'everywhere') context.stroke(pathOf(glyph));
    else context.fill(pathOf(glyph));
    context.restore();
  });
  if (mark === 'everywhere' || many || shown[0]?.isDerived) return;
  if (!suspect && count < 2) return;
  context.fillStyle = colour('bg.panel');
  context.fillText(suspect ? '?' : String(count), centre.x, centre.y + 0.5);
}
