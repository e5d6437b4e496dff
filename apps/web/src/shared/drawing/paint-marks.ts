import type { DrawingScene } from '@coomb/core';
import { cssFont } from './canvas-pen';
import type { ViewPort } from './drawing-painter';

interface Marked {
  marks: { counts: ReadonlyMap<number, number | string>; lit: ReadonlySet<number> };
  selected: number;
  hovered: number;
}

/** Draws over a drawing what changes with the hand: how many links shapes have, what is chosen, and what it is linked with. */
export function paintMarks(
  context: CanvasRenderingContext2D,
  view: ViewPort,
  { shapes }: DrawingScene,
  { marks, selected, hovered }: Marked,
  colour: (token: string) => string,
): void {
  const place = (index: number) => {
    const { x, y, width, height } = shapes[index]!;
    return { x: (x - view.x) * view.scale, y: (y - view.y) * view.scale, width: width * view.scale, height: height * view.scale };
  };
  const ring = (index: number, stroke: string, wide: number, gap: number) => {
    if (!shapes[index]) return;
    const { x, y, width, height } = place(index);
    context.strokeStyle = stroke;
    context.lineWidth = wide;
    context.beginPath();
    context.roundRect(x - gap, y - gap, width + 2 * gap, height + 2 * gap, 3);
    context.stroke();
  };
  for (const index of marks.lit) {
    const { x, y, width, height } = place(index);
    context.globalAlpha = 0.25;
    context.fillStyle = colour('moss.solid');
    context.fillRect(x, y, width, height);
    context.globalAlpha = 1;
    ring(index, colour('moss.solid'), 2, 2);
  }
  if (hovered >= 0 && hovered !== selected) ring(hovered, colour('border.emphasized'), 1.5, 2);
  if (selected >= 0) ring(selected, colour('moss.solid'), 3, 3);
  if (view.scale < 0.3) return;
  context.font = cssFont({ size: 10.5, bold: true });
  context.textAlign = 'center';
  for (const [index, count] of marks.counts) {
    const { x, y, width } = place(index);
    if (x + width < -20 || y < -20) continue;
    const text = typeof count === 'number' && count > 99 ? '99+' : String(count);
    const wide = Math.max(17, context.measureText(text).width + 9);
    // A tab that stands on the shape's upper edge, like a bookmark in a binding.
    const left = x + width - wide - 3;
    const isSmall = width < 30;
    const [tabX, tabY] = isSmall ? [x + width - 2, y - 13] : [left, y - 7];
    context.fillStyle = colour('moss.solid');
    context.beginPath();
    context.roundRect(tabX, tabY, wide, 14, [3, 3, 0, 0]);
    context.fill();
    context.fillStyle = colour('moss.contrast');
    context.fillText(text, tabX + wide / 2, tabY + 10.5);
  }
}
