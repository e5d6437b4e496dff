import type { FoldedAxis, MatrixCells } from '@coomb/core';

export const cellSize = 22;

export interface MatrixLook {
  colour: (token: string) => string;
  rows: FoldedAxis;
  columns: FoldedAxis;
  cells: MatrixCells;
  isRowGap: (line: number) => boolean;
  isColumnGap: (line: number) => boolean;
  isHeading: (side: 'row' | 'column', line: number) => boolean;
  /** Where the links of an unfolded cell hold, how many, and whether one is suspect. */
  markOf: (row: number, column: number) => { mark: 'here' | 'everywhere' | 'elsewhere' | undefined; count: number; suspect: boolean };
  /** Some lines are uses of the item above them. */
  hasUses: boolean;
  cursor: { row: number; column: number };
  focused: boolean;
}

/** Paints the cells in sight: linked cells as moss squares with counts, gap lines shaded, the cursor framed. */
export function paintMatrix(context: CanvasRenderingContext2D, view: { left: number; top: number; width: number; height: number }, look: MatrixLook): void {
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
  for (let row = firstRow; row <= lastRow; row++)
    for (let column = firstColumn; column <= lastColumn; column++) {
      const count = cells.counts.get(row * cells.columns + column) ?? 0;
      if (count > 0 || look.hasUses) paintCell(context, look, row, column, count, x(column), y(row));
    }
  context.strokeStyle = colour(look.focused ? 'moss.solid' : 'border.emphasized');
  context.lineWidth = 2;
  context.strokeRect(x(look.cursor.column), y(look.cursor.row), cellSize - 1, cellSize - 1);
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

function paintCell(context: CanvasRenderingContext2D, look: MatrixLook, row: number, column: number, count: number, x: number, y: number): void {
  const folded = look.rows.size[row]! > 1 || look.columns.size[column]! > 1;
  const { mark, count: own, suspect } = look.markOf(row, column);
  context.fillStyle = look.colour(suspect ? 'suspect' : 'moss.solid');
  if (folded) {
    if (count === 0) return;
    context.globalAlpha = Math.min(1, 0.25 + count / 24);
    context.fillRect(x + 1, y + 1, cellSize - 3, cellSize - 3);
    context.globalAlpha = 1;
    context.fillStyle = look.colour('fg');
    context.fillText(String(count), x + cellSize / 2, y + cellSize / 2);
    return;
  }
  if (mark === undefined) return;
  if (mark === 'elsewhere') {
    // Linked in other uses only.
    context.fillStyle = look.colour('heather.fg');
    context.fillRect(x + cellSize / 2 - 4.5, y + cellSize / 2 - 1, 8, 1.5);
    return;
  }
  context.beginPath();
  context.arc(x + cellSize / 2 - 0.5, y + cellSize / 2 - 0.5, mark === 'here' ? 6 : 5, 0, 2 * Math.PI);
  if (mark === 'everywhere') {
    context.strokeStyle = context.fillStyle;
    context.lineWidth = 1.5;
    context.stroke();
    return;
  }
  context.fill();
  if (!suspect && own < 2) return;
  context.fillStyle = look.colour('bg.panel');
  context.fillText(suspect ? '?' : String(own), x + cellSize / 2 - 0.5, y + cellSize / 2);
}
