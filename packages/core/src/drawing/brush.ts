import type { DrawnShape } from './drawn.js';
import { type Ink, type Paper, type Pen, type PenFont, fitLine, wrapText } from './pen.js';

/** How much of a figure is worth painting at a size: filled boxes only, outlines, names, or everything. */
export type Detail = 0 | 1 | 2 | 3;

export function detailAt(scale: number): Detail {
  return scale < 0.16 ? 0 : scale < 0.32 ? 1 : scale < 0.6 ? 2 : 3;
}

export const NAME: PenFont = { size: 12.5, bold: true };
export const PLAIN: PenFont = { size: 12.5 };
export const SMALL: PenFont = { size: 11 };
const HEAD: PenFont = { size: 10, italic: true };
export const LINE = 15;

/** All that a figure is painted with. */
export interface Brush {
  pen: Pen;
  paper: Paper;
  shape: DrawnShape;
  ink: Ink;
  font: string;
  detail: Detail;
  /** Whether other shapes lie in it: its name then stands at its top. */
  holds: boolean;
  /** What it lies in. */
  holder: DrawnShape | undefined;
}

export function outline({ pen, shape, ink }: Brush, radius: number): void {
  pen.rect(shape.x, shape.y, shape.width, shape.height, radius, ink);
}

export function circle({ pen, shape, ink }: Brush, other: Ink = ink): void {
  pen.ellipse(shape.x + shape.width / 2, shape.y + shape.height / 2, shape.width / 2, shape.height / 2, other);
}

export function cross({ pen, shape, ink }: Brush, arm: number): void {
  const [cx, cy] = [shape.x + shape.width / 2, shape.y + shape.height / 2];
  const [dx, dy] = [shape.width * arm, shape.height * arm];
  pen.line([cx - dx, cy - dy, cx + dx, cy + dy], false, { stroke: ink.stroke, width: 2 });
  pen.line([cx - dx, cy + dy, cx + dx, cy - dy], false, { stroke: ink.stroke, width: 2 });
}

export function plus({ pen, shape, ink }: Brush, arm: number): void {
  const [cx, cy] = [shape.x + shape.width / 2, shape.y + shape.height / 2];
  pen.line([cx - shape.width * arm, cy, cx + shape.width * arm, cy], false, { stroke: ink.stroke, width: 2 });
  pen.line([cx, cy - shape.height * arm, cx, cy + shape.height * arm], false, { stroke: ink.stroke, width: 2 });
}

export function lettered(brush: Brush, letter: string): void {
  circle(brush);
  const { pen, shape, font, detail } = brush;
  if (detail >= 2) pen.text(letter, shape.x + shape.width / 2, shape.y + shape.height / 2 + 4, NAME, 'middle', font);
}

export function diamondOf({ x, y, width, height }: DrawnShape): number[] {
  return [x + width / 2, y, x + width, y + height / 2, x + width / 2, y + height, x, y + height / 2];
}

/** Keyword and name of a classifier, then its compartments. */
export function classifier(brush: Brush): void {
  const { pen, paper, shape, ink, font, detail, holds } = brush;
  const { x, y, width, height, parts = [] } = shape;
  if (detail < 2) return;
  const hasParts = detail >= 3 && parts.length > 0 && !holds;
  if (!hasParts) return names(brush, y, height, holds ? 'top' : 'middle');
  const head = (shape.keyword ? LINE - 2 : 0) + LINE + 6;
  names(brush, y, head, 'middle');
  let at = y + head;
  const bottom = y + height;
  for (const { title, lines } of parts) {
    if (at + 8 > bottom) break;
    pen.line([x, at, x + width, at], false, { stroke: ink.stroke, width: 0.8 });
    at += 3;
    if (title && at + 12 <= bottom) {
      pen.text(title, x + width / 2, at + 9, HEAD, 'middle', paper.ink === font ? paper.ink : font);
      at += 12;
    }
    const left = Math.floor((bottom - at - 2) / 13);
    const wrapped =
      lines.length === 1 || lines[0]!.startsWith('id = ') ? lines.flatMap((line) => wrapText(pen, line, SMALL, width - 12, Math.max(1, left))) : lines;
    const shown = wrapped.slice(0, Math.max(0, left));
    shown.forEach((line, index) => {
      const isLast = index === shown.length - 1 && wrapped.length > shown.length;
      pen.text(isLast ? `… ${wrapped.length - shown.length + 1} more` : fitLine(pen, line, SMALL, width - 12), x + 6, at + 10, SMALL, 'start', font);
      at += 13;
    });
    at += 3;
  }
}

/** Keyword above, then the name on as many lines as there is room for. */
export function names(brush: Brush, top: number, height: number, place: 'top' | 'middle', bold = true, share = 1): void {
  const { pen, shape, font, detail } = brush;
  if (detail < 2) return;
  const name = bold ? NAME : PLAIN;
  const width = shape.width * share - 8;
  const keyword = shape.keyword && detail >= 3 ? fitLine(pen, shape.keyword, SMALL, width) : '';
  const most = Math.max(1, Math.floor((height - (keyword ? LINE : 0)) / LINE));
  const lines = wrapText(pen, shape.name, name, width, place === 'top' ? 1 : Math.min(4, most));
  const tall = lines.length * LINE + (keyword ? LINE - 2 : 0);
  let y = (place === 'top' ? top + 5 : top + Math.max(2, (height - tall) / 2)) + 11;
  const centre = shape.x + shape.width / 2;
  if (keyword) {
    pen.text(keyword, centre, y - 1, SMALL, 'middle', font);
    y += LINE - 2;
  }
  for (const line of lines) {
    pen.text(line, centre, y, name, 'middle', font);
    y += LINE;
  }
}

export function words({ pen, shape, font, detail }: Brush, text: string, top: number, height: number, face: PenFont, left = shape.x + 6): void {
  if (detail < 2) return;
  const lines = wrapText(pen, text, face, shape.width - 14, Math.max(1, Math.floor(height / 13)));
  lines.forEach((line, index) => pen.text(line, left, top + 10 + index * 13, face, 'start', font));
}

/** The name of what is too small to hold it stands beside it. */
export function beside({ pen, shape, paper, detail, holder }: Brush): void {
  if (detail < 3 || !shape.name) return;
  const { label } = shape;
  const isRight = holder && shape.x + shape.width / 2 > holder.x + holder.width * 0.66;
  if (label) pen.text(fitLine(pen, shape.name, SMALL, Math.max(label.width, 30) + 30), label.x, label.y + 11, SMALL, 'start', paper.ink);
  else if (isRight)
    pen.text(fitLine(pen, shape.name, SMALL, Math.min(140, holder.width / 2)), shape.x - 4, shape.y + shape.height / 2 - 4, SMALL, 'end', paper.ink);
  else pen.text(fitLine(pen, shape.name, SMALL, 140), shape.x + shape.width + 4, shape.y + shape.height / 2 - 4, SMALL, 'start', paper.ink);
}

export function below({ pen, shape, paper, detail }: Brush): void {
  if (detail < 2 || !shape.name) return;
  const label = shape.label ?? { x: shape.x - 40, y: shape.y + shape.height + 2, width: shape.width + 80, height: 30 };
  const lines = wrapText(pen, shape.name, SMALL, Math.max(60, label.width), 3);
  lines.forEach((line, index) => pen.text(line, label.x + label.width / 2, label.y + 11 + index * 13, SMALL, 'middle', paper.ink));
}

export function signed(brush: Brush): void {
  if (brush.shape.sign) sign(brush, brush.shape.x + brush.shape.width / 2 - 7, brush.shape.y + brush.shape.height / 2 - 7);
  below(brush);
}

/** Small signs of BPMN, by what they mean. */
export function sign({ pen, shape, ink, detail, paper }: Brush, x: number, y: number): void {
  if (detail < 2) return;
  const line = { stroke: ink.stroke, width: 1 };
  switch (shape.sign) {
    case 'message':
    case 'send':
    case 'receive':
      pen.rect(x, y + 2, 14, 10, 0, { ...line, fill: shape.sign === 'send' ? (ink.stroke ?? paper.ink) : undefined });
      pen.line([x, y + 2, x + 7, y + 8, x + 14, y + 2], false, shape.sign === 'send' ? { stroke: paper.fill, width: 1 } : line);
      break;
    case 'timer':
      pen.ellipse(x + 7, y + 7, 7, 7, line);
      pen.line([x + 7, y + 2, x + 7, y + 7, x + 11, y + 8], false, line);
      break;
    case 'error':
      pen.line([x + 1, y + 13, x + 5, y + 3, x + 9, y + 9, x + 13, y + 1], false, { ...line, width: 1.6 });
      break;
    case 'signal':
      pen.line([x + 7, y + 1, x + 14, y + 13, x, y + 13], true, line);
      break;
    case 'terminate':
      pen.ellipse(x + 7, y + 7, 6, 6, { fill: ink.stroke ?? paper.ink });
      break;
    case 'user':
      pen.ellipse(x + 7, y + 4, 3, 3, line);
      pen.line([x + 1, y + 14, x + 2, y + 9, x + 12, y + 9, x + 13, y + 14], true, line);
      break;
    case 'service':
      pen.ellipse(x + 7, y + 7, 3, 3, line);
      pen.ellipse(x + 7, y + 7, 6.5, 6.5, { ...line, dashed: true });
      break;
    case 'manual':
      pen.line([x, y + 6, x + 9, y + 2, x + 14, y + 6, x + 14, y + 11, x, y + 11], true, line);
      break;
    case 'script':
      pen.rect(x + 2, y, 10, 14, 2, line);
      for (const down of [4, 7, 10]) pen.line([x + 4, y + down, x + 10, y + down], false, line);
      break;
    case 'businessRule':
      pen.rect(x, y + 2, 14, 11, 0, line);
      pen.line([x, y + 6, x + 14, y + 6], false, line);
      pen.line([x + 5, y + 2, x + 5, y + 13], false, line);
      break;
    case 'escalation':
      pen.line([x + 7, y + 1, x + 12, y + 13, x + 7, y + 8, x + 2, y + 13], true, line);
      break;
    case 'conditional':
      pen.rect(x + 2, y + 1, 10, 12, 0, line);
      for (const down of [4, 7, 10]) pen.line([x + 4, y + down, x + 10, y + down], false, line);
      break;
    default:
  }
}
